<script setup lang="ts">
/** What was painted, as a tint over the picture: for owners whose masks do not show by themselves. */
import { computed, useId } from 'vue'
import type { BrushStrokeOf } from '@/api/types'
import type { Frame } from './masks'

const props = defineProps<{
  strokes: readonly BrushStrokeOf[]
  frame: Frame
  width: number
  height: number
}>()
const mask = useId()

const drawn = computed(() => {
  const origin = props.frame.to({ x: 0, y: 0 })
  const unit = props.frame.to({ x: 1, y: 0 })
  const scale = Math.hypot(unit.x - origin.x, unit.y - origin.y)
  return props.strokes.map((stroke) => {
    const spots = stroke.points.map(([x, y]) => props.frame.to({ x, y }))
    if (spots.length === 1) spots.push(...spots)
    return {
      points: spots.map(({ x, y }) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' '),
      wide: Math.max(1, (stroke.width ?? 0.06) * scale),
      colour: stroke.erase ? 'black' : 'white',
    }
  })
})
</script>

<template>
  <svg class="tint" :viewBox="`0 0 ${width} ${height}`" aria-hidden="true" data-test="brush-tint">
    <mask :id="mask" maskUnits="userSpaceOnUse" x="0" y="0" :width="width" :height="height">
      <polyline
        v-for="(one, index) in drawn"
        :key="index"
        :points="one.points"
        :stroke="one.colour"
        :stroke-width="one.wide"
        fill="none"
        stroke-linecap="round"
        stroke-linejoin="round"
      />
    </mask>
    <rect :width="width" :height="height" :mask="`url(#${mask})`" />
  </svg>
</template>

<style scoped>
.tint {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
rect {
  fill: rgb(255 138 107 / 45%);
}
</style>
