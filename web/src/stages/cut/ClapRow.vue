<script setup lang="ts">
/** The clap of the angle in hand: said where it is, gone to, laid on that of another. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import type { MulticamClip } from '@/api/types'
import { outerTick } from '@/motion/inside'
import { useScreen } from '@/player/inject'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import { nearestFrame } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'
import { useClaps } from './useClaps'

const props = defineProps<{
  clip: MulticamClip
  angle: number
  /** The angle that the others are held against. */
  first: number
  /** The playhead, in the clip's own time. */
  at: number
  names: readonly string[]
}>()
const emit = defineEmits<{ nudge: [by: number] }>()
const project = useProject()
const { player } = useScreen()
const claps = useClaps(() => props.clip)

const mine = computed(() => claps.at(props.angle))
const apart = computed(() => claps.apart(props.angle, props.first))
const told = computed(() => {
  if (props.angle === props.first || apart.value !== null) return ''
  const missing = mine.value === null ? props.angle : props.first
  return t('cut.clapRow.missing', { name: props.names[missing] ?? '' })
})

function goTo() {
  if (mine.value === null) return
  player.seek(nearestFrame(outerTick(props.clip, mine.value), project.rate))
}
</script>

<template>
  <TrayItem :name="$t('cut.clapRow.clap')" :told="names[angle]">
    <div class="line" role="group" :aria-label="$t('cut.clapRow.clap')">
      <BButton
        variant="secondary"
        :title="$t('cut.clapRow.hereHelp')"
        data-test="clap-here"
        @click="claps.mark(angle, at)"
      >
        {{ $t('cut.clapRow.here') }}
      </BButton>
      <BButton variant="secondary" :disabled="mine === null" data-test="to-clap" @click="goTo">
        {{ $t('cut.clapRow.goTo') }}
      </BButton>
      <BButton
        variant="secondary"
        :disabled="!apart"
        :title="$t('cut.clapRow.togetherHelp')"
        data-test="claps-together"
        @click="emit('nudge', apart ?? 0)"
      >
        {{ $t('cut.clapRow.together') }}
      </BButton>
    </div>
    <p class="tiny quiet mb-0" role="status">{{ told }}</p>
  </TrayItem>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
</style>
