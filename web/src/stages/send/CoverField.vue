<script setup lang="ts">
/** The picture by which a file is shown in lists of files: that at the playhead, or none. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import { useScreen } from '@/player/inject'
import { useProject } from '@/stores/project'
import { useSending } from '@/stores/sending'
import { t } from '@/texts'
import { clockOf, frameOf, tickOf } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'

const props = defineProps<{ cover: number | null }>()
const project = useProject()
const sending = useSending()
const { player } = useScreen()
const frame = computed(() => (props.cover === null ? null : frameOf(props.cover, project.rate)))
const told = computed(() =>
  frame.value === null ? t('words.no') : clockOf(frame.value, project.rate),
)
const here = () => sending.adjust({ cover: tickOf(player.frame.value, project.rate) })
</script>

<template>
  <TrayItem :name="$t('send.coverField.cover')" :told="told">
    <div class="line">
      <span class="name" :title="$t('send.coverField.help')">{{
        $t('send.coverField.cover')
      }}</span>
      <img
        v-if="frame !== null"
        :src="`${project.source.base}/frames/${frame}?long_side=160`"
        alt=""
      />
      <span class="small" data-test="cover">{{ told }}</span>
      <BButton variant="secondary" size="sm" data-test="cover-here" @click="here">
        {{ $t('send.coverField.here') }}
      </BButton>
      <BButton
        v-if="cover !== null"
        variant="secondary"
        size="sm"
        data-test="no-cover"
        @click="sending.adjust({ cover: null })"
      >
        {{ $t('words.none') }}
      </BButton>
    </div>
  </TrayItem>
</template>

<style scoped>
.line {
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 36px;
}
.name {
  min-width: 84px;
  color: var(--soft);
}
img {
  height: 44px;
  border-radius: 4px 4px 1px 4px;
}
</style>
