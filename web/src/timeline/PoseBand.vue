<script setup lang="ts">
/** On a mouth: which pose it has when, by colour and digit. */
import { computed } from 'vue'
import type { MouthClip } from '@/api/types'
import { poseTint } from '@/look/poses'
import { digitOf } from '@/motion/angles'
import { filmTick, ownStretch, ownTick, posedIn, posesOf } from '@/motion/mouth'
import ColourBand from './ColourBand.vue'
import { toPx, toTick } from './scale'

const props = defineProps<{
  clip: MouthClip
  pxPerSecond: number
  /** Pixels of the clip between which it can be seen. */
  from: number
  to: number
}>()
/** Pixels from which on a pose can be told from its neighbours. */
const SEEN = 1.5

const parts = computed(() => {
  if (!(props.clip.turns ?? []).length) return []
  const start = props.clip.start ?? 0
  const whole = ownStretch(props.clip)
  const own = (px: number) => ownTick(props.clip, start + toTick(px, props.pxPerSecond))
  const ends = [own(props.from), own(props.to)]
  const low = Math.max(whole.low, Math.min(...ends))
  const high = Math.min(whole.high, Math.max(...ends))
  const px = (tick: number) => toPx(filmTick(props.clip, tick) - start, props.pxPerSecond)
  const poses = posesOf(props.clip)
  return posedIn(props.clip, low, high).flatMap(({ from, to, pose, at }) => {
    const edges = [px(from), px(to)]
    const left = Math.min(...edges)
    const width = Math.max(...edges) - left
    const digit = digitOf(poses.indexOf(pose))
    return width < SEEN ? [] : [{ at, left, width, digit, colour: poseTint(poses, pose) }]
  })
})
</script>

<template>
  <ColourBand :parts="parts" />
</template>
