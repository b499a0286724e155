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
import SidePictures, { type Side } from './SidePictures.vue'
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

const frameAt = (tick: number) => nearestFrame(outerTick(props.clip, tick), project.rate)

/** What each of the two angles shows at its own clap, wherever that lies. */
const sides = computed<Side[]>(() =>
  [...new Set([props.first, props.angle])].flatMap((index) => {
    const clap = claps.at(index)
    const name = props.names[index] ?? ''
    const frame = clap === null ? -1 : frameAt(clap)
    const seen = props.clip.tracks[index]?.kind !== 'sound'
    if (!seen || frame < 0 || frame >= project.frames) return []
    const look = { wall: props.clip.id ?? '', columns: '1', left: String(index) }
    const title = t('cut.switchView.toFrame', { name })
    return [{ frame, shown: frame, tag: name, title, look }]
  }),
)

function goTo() {
  if (mine.value !== null) player.seek(frameAt(mine.value))
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
  <TrayItem v-if="sides.length > 1" :name="$t('cut.clapRow.frames')">
    <SidePictures :sides="sides" data-test="clap-frames" />
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
