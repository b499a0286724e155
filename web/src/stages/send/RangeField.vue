<script setup lang="ts">
/** How much of the timeline goes into the file. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import { useScreen } from '@/player/inject'
import { useProject } from '@/stores/project'
import { useSending } from '@/stores/sending'
import { t } from '@/texts'
import { clockOf, frameOf, tickOf } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'

const project = useProject()
const sending = useSending()
const { player } = useScreen()

const clock = (tick: number) => clockOf(frameOf(tick, project.rate), project.rate)
const end = computed(() => Math.min(sending.range.last || project.length, project.length))
const told = computed(() =>
  sending.range.first || sending.range.last
    ? `${clock(sending.range.first)} – ${clock(end.value)}`
    : t('send.rangeField.all'),
)
const here = () => tickOf(player.frame.value, project.rate)
function beginHere() {
  const first = here()
  sending.range = { first, last: end.value > first ? sending.range.last : 0 }
}
/** The frame at the playhead is the last one that is in it. */
function endHere() {
  const last = tickOf(player.frame.value + 1, project.rate)
  sending.range = { first: sending.range.first < last ? sending.range.first : 0, last }
}
</script>

<template>
  <TrayItem :name="$t('send.rangeField.range')" :told="told">
    <div class="line">
      <span class="name">{{ $t('send.rangeField.range') }}</span>
      <span class="small" data-test="range">{{ told }}</span>
      <BButton variant="secondary" size="sm" data-test="begin-here" @click="beginHere">
        {{ $t('send.rangeField.beginHere') }}
      </BButton>
      <BButton variant="secondary" size="sm" data-test="end-here" @click="endHere">
        {{ $t('send.rangeField.endHere') }}
      </BButton>
      <BButton
        v-if="sending.range.first || sending.range.last"
        variant="secondary"
        size="sm"
        data-test="all-of-it"
        @click="sending.forget()"
      >
        {{ $t('send.rangeField.all') }}
      </BButton>
    </div>
  </TrayItem>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
  min-height: 36px;
}
.name {
  min-width: 84px;
  color: var(--soft);
}
</style>
