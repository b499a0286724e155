<script setup lang="ts">
/** Lines over the picture by which it is composed; they are never in the film. */
import { computed } from 'vue'
import { useViewing } from '@/stores/viewing'

const props = defineProps<{ width: number; height: number }>()
const viewing = useViewing()

/** Shares of width and height within which titles and what happens are surely seen. */
const SAFE = { action: 0.93, title: 0.9 }
/** Cells along the shorter side of the picture. */
const CELLS = 6

const cells = computed(() => {
  const cell = Math.min(props.width, props.height) / CELLS
  const along = (length: number) => {
    const half = Math.floor(length / 2 / cell)
    return Array.from({ length: half * 2 + 1 }, (_, i) => length / 2 + (i - half) * cell)
  }
  return { x: along(props.width), y: along(props.height) }
})
const thirds = computed(() => ({
  x: [props.width / 3, (props.width * 2) / 3],
  y: [props.height / 3, (props.height * 2) / 3],
}))
const lines = computed(() => [
  ...(viewing.guides.includes('grid') ? [{ id: 'grid', ...cells.value }] : []),
  ...(viewing.guides.includes('thirds') ? [{ id: 'thirds', ...thirds.value }] : []),
])
</script>

<template>
  <svg
    v-if="viewing.guides.length"
    class="guides"
    :viewBox="`0 0 ${width} ${height}`"
    aria-hidden="true"
    data-test="guides"
  >
    <g v-for="one in lines" :key="one.id" :class="one.id" :data-test="`guide-${one.id}`">
      <line v-for="x in one.x" :key="`x${x}`" :x1="x" :x2="x" y1="0" :y2="height" />
      <line v-for="y in one.y" :key="`y${y}`" :y1="y" :y2="y" x1="0" :x2="width" />
    </g>
    <g v-if="viewing.guides.includes('safe')" class="safe" data-test="guide-safe">
      <rect
        v-for="(share, name) in SAFE"
        :key="name"
        :class="name"
        :x="(width * (1 - share)) / 2"
        :y="(height * (1 - share)) / 2"
        :width="width * share"
        :height="height * share"
      />
    </g>
  </svg>
</template>

<style scoped>
.guides {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
  mix-blend-mode: difference;
}
line,
rect {
  fill: none;
  stroke: rgb(255 255 255 / 55%);
  vector-effect: non-scaling-stroke;
}
.grid line {
  stroke: rgb(255 255 255 / 25%);
}
.title {
  stroke-dasharray: 6 4;
}
</style>
