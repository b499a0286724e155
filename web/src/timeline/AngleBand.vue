<script setup lang="ts">
/** On a multicam clip: which angle is seen when, by colour and digit; in hand, switches are rolled. */
import { computed } from 'vue'
import { tagColour } from '@/api/kinds'
import type { MulticamClip } from '@/api/types'
import { useDraft } from '@/controls/useDraft'
import { useGrip } from '@/controls/useGrip'
import { anglesOf, digitOf, stretchesOf } from '@/motion/angles'
import { innerTick } from '@/motion/inside'
import { useScreen } from '@/player/inject'
import { useProject } from '@/stores/project'
import { frameOf, frameTicks } from '@/time'
import ColourBand from './ColourBand.vue'
import { toPx, toTick } from './scale'

const props = defineProps<{
  clip: MulticamClip
  pxPerSecond: number
  /** Pixels of the clip between which it can be seen. */
  from: number
  to: number
  rolls: boolean
}>()
const project = useProject()
const { player } = useScreen()

interface Roll {
  at: number
  by: number
}
const rolled = useDraft<Roll>(() => props.clip)
const start = computed(() => props.clip.start ?? 0)

const stretches = computed(() => {
  const all = stretchesOf(props.clip)
  const roll = rolled.value
  const held = all.findIndex(({ at }) => at === roll?.at)
  if (!roll || held < 1) return all
  return all.map((one, index) => {
    if (index === held) return { ...one, from: one.from + roll.by }
    return index === held - 1 ? { ...one, to: one.to + roll.by } : one
  })
})
const parts = computed(() => {
  const angles = anglesOf(props.clip)
  const px = (tick: number) => toPx(tick - start.value, props.pxPerSecond)
  return stretches.value
    .map(({ from, to, angle, at }) => ({
      at,
      left: px(from),
      width: px(to) - px(from),
      colour: tagColour(angles[angle]?.tag),
      digit: digitOf(angle),
    }))
    .filter(({ left, width }) => left < props.to && left + width > props.from)
})
/** Switches with room for a finger on either side. */
const NARROW = 16
const forwards = computed(
  () => innerTick(props.clip, start.value + props.clip.length) > innerTick(props.clip, start.value),
)
const grips = computed(() =>
  props.rolls && forwards.value
    ? parts.value.filter(
        ({ left, width }, index) =>
          left > 1 && width >= NARROW && (parts.value[index - 1]?.width ?? NARROW) >= NARROW,
      )
    : [],
)

const grip = useGrip<number>({
  slop: 2,
  move({ dx }, at) {
    const all = stretchesOf(props.clip)
    const index = all.findIndex((one) => one.at === at)
    const [before, here] = [all[index - 1], all[index]]
    if (!before || !here) return
    const step = frameTicks(project.rate)
    const by = Math.round(toTick(dx, props.pxPerSecond) / step) * step
    const to = Math.min(here.to - step, Math.max(before.from + step, here.from + by))
    rolled.value = { at, by: to - here.from }
    player.seek(frameOf(to, project.rate))
  },
  async drop(_, at) {
    const by = rolled.value?.by ?? 0
    const here = stretchesOf(props.clip).find((one) => one.at === at)
    if (!here || !by) {
      rolled.value = null
      return
    }
    const inner = innerTick(props.clip, here.from + by) - at
    await project.edit({ kind: 'roll_switch', clip: props.clip.id ?? '', at, by: inner })
  },
  cancel: () => (rolled.value = null),
})
</script>

<template>
  <ColourBand :parts="parts">
    <i
      v-for="one in grips"
      :key="`grip-${one.at}`"
      :style="{ left: `${one.left}px` }"
      :data-switch="one.at"
      @pointerdown.stop="grip.down($event, one.at)"
    />
  </ColourBand>
</template>

<style scoped>
i {
  position: absolute;
  bottom: 0;
  width: 16px;
  height: 100%;
  min-height: 24px;
  margin-left: -8px;
  cursor: ew-resize;
  pointer-events: auto;
  touch-action: none;
}
i::after {
  content: '';
  position: absolute;
  inset: auto 6px 0;
  height: 18px;
  border-radius: 2px;
  background: #fff;
  box-shadow: 0 0 0 1px #17141a;
}
@media (pointer: coarse) {
  i {
    width: 32px;
    min-height: 36px;
    margin-left: -16px;
  }
  i::after {
    inset: auto 13px 0;
  }
}
</style>
