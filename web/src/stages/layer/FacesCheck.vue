<script setup lang="ts">
/** All but what lies around faces is dark, so that what is not covered of them is seen. */
import { computed } from 'vue'
import type { VideoClip } from '@/api/types'
import { usePictureFrame } from '@/picture/usePictureFrame'
import { usePersons } from './usePersons'

const props = defineProps<{ clip: VideoClip; width: number; height: number }>()
const { here } = usePersons(() => props.clip)
const { frame } = usePictureFrame(() => props.width)

/** How much around a face is left to be seen, of its longer half. */
const AROUND = 1.7

const holes = computed(() => {
  const at = frame.value
  if (!at) return []
  return here.value.map((quad) => {
    const spots = quad.map(([x, y]) => at.to({ x, y }))
    const [xs, ys] = [spots.map(({ x }) => x), spots.map(({ y }) => y)]
    const [left, right] = [Math.min(...xs), Math.max(...xs)]
    const [top, bottom] = [Math.min(...ys), Math.max(...ys)]
    const radius = (Math.max(right - left, bottom - top) / 2) * AROUND
    return { x: (left + right) / 2, y: (top + bottom) / 2, radius }
  })
})
</script>

<template>
  <svg class="dark" :viewBox="`0 0 ${width} ${height}`" aria-hidden="true" data-test="faces-check">
    <mask id="around-faces">
      <rect :width="width" :height="height" fill="#fff" />
      <circle
        v-for="({ x, y, radius }, index) in holes"
        :key="index"
        :cx="x"
        :cy="y"
        :r="radius"
        fill="#000"
      />
    </mask>
    <rect :width="width" :height="height" mask="url(#around-faces)" />
  </svg>
  <p v-if="!holes.length" class="none tiny">{{ $t('layer.facesPart.noneHere') }}</p>
</template>

<style scoped>
.dark {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
.dark > rect {
  fill: rgb(10 9 12 / 86%);
}
.none {
  position: absolute;
  inset: 45% 12px auto;
  margin: 0;
  text-align: center;
  pointer-events: none;
}
</style>
