<script setup lang="ts">
/** Clips of a row painted together, without names: many, while the scale changes. */
import { computed, onMounted, ref, watch } from 'vue'
import { KIND_TINTS } from '@/api/kinds'
import type { Clip, Take } from '@/api/types'
import { boxesPath, TINY, type Shown } from '@/timeline/crowds'
import { drawPictures } from '@/timeline/faces'

const props = defineProps<{
  clips: Shown[]
  takeOf: (clip: Clip) => Take | undefined
  height: number
  pxPerSecond: number
}>()

const canvas = ref<HTMLCanvasElement | null>(null)
const left = computed(() => Math.floor(props.clips[0]?.left ?? 0))
const width = computed(() => {
  const last = props.clips.at(-1)
  return last ? Math.ceil(last.left + last.width) - left.value : 0
})
const boxes = computed(() => props.clips.map((one) => ({ ...one, left: one.left - left.value })))

/** One path for each kind. */
const paths = computed(() => {
  const kinds = new Map<Clip['kind'], Shown[]>()
  for (const box of boxes.value) {
    const alike = kinds.get(box.clip.kind) ?? []
    alike.push(box)
    kinds.set(box.clip.kind, alike)
  }
  return [...kinds].map(([kind, alike]) => ({ kind, d: boxesPath(alike, props.height) }))
})

function draw() {
  const context = canvas.value?.getContext('2d')
  if (!canvas.value || !context) return
  const { height, pxPerSecond } = props
  canvas.value.width = width.value
  canvas.value.height = height
  for (const box of boxes.value) {
    const take = props.takeOf(box.clip)
    if (!take || box.width <= TINY) continue
    const seen = { from: 0, to: box.width - 1, pxPerSecond, height, slip: 0 }
    context.setTransform(1, 0, 0, 1, box.left, 0)
    drawPictures(context, box.clip, take, seen, draw)
    context.clearRect(seen.to, 0, width.value, height)
  }
}

onMounted(draw)
watch(boxes, draw, { flush: 'post' })
</script>

<template>
  <div
    class="plain"
    :style="{
      transform: `translateX(${left}px)`,
      width: `${width}px`,
      height: `${height}px`,
    }"
    aria-hidden="true"
  >
    <svg :width="width" :height="height">
      <path v-for="{ kind, d } in paths" :key="kind" :d="d" :style="{ fill: KIND_TINTS[kind] }" />
    </svg>
    <canvas ref="canvas" />
  </div>
</template>

<style scoped>
.plain {
  position: absolute;
  top: 2px;
  left: 0;
  pointer-events: none;
}
.plain::after {
  content: '';
  position: absolute;
  inset: 0;
  background: linear-gradient(#17141a99, transparent 55%);
}
:is(svg, canvas) {
  position: absolute;
  inset: 0;
}
</style>
