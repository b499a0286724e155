<script setup lang="ts">
/** The sound of an angle's files around the playhead; dragged, it comes earlier or later. */
import { useElementSize } from '@vueuse/core'
import { computed, ref, watchPostEffect } from 'vue'
import { TICKS_PER_SECOND, type Clip } from '@/api/types'
import { useGrip } from '@/controls/useGrip'
import { useLibrary } from '@/stores/library'
import { drawFace } from '@/timeline/faces'
import type { AngleFile } from './files'

const props = defineProps<{
  label: string
  files: readonly AngleFile[]
  /** Ticks of the clip's own time at both edges, and of the playhead. */
  from: number
  to: number
  at: number
  locked: boolean
}>()
const emit = defineEmits<{ move: [by: number] }>()
const library = useLibrary()
const lane = ref<HTMLElement | null>(null)
const canvases = ref<HTMLCanvasElement[]>([])
const { width, height } = useElementSize(lane)
/** Pixels by which it is being dragged. */
const pulled = ref(0)

const pxPerTick = computed(() => width.value / Math.max(1, props.to - props.from))
const px = (tick: number) => (tick - props.from) * pxPerTick.value

const grip = useGrip({
  rest: () => 0,
  move: ({ dx }) => (pulled.value = dx),
  drop({ dx }) {
    pulled.value = 0
    emit('move', Math.round(dx / pxPerTick.value))
  },
  cancel: () => (pulled.value = 0),
})
const shown = computed(() =>
  props.files.map((file) => ({
    file,
    left: px(file.at),
    width: file.length * pxPerTick.value,
  })),
)

function draw() {
  for (const [index, { file, left, width: wide }] of shown.value.entries()) {
    const canvas = canvases.value[index]
    const take = library.byMedia.get(file.media)
    if (!canvas || !take) continue
    const from = Math.max(0, Math.floor(-left))
    const to = Math.min(wide, width.value - left)
    if (to <= from || height.value < 2) continue
    const clip = { kind: 'sound', media: file.media, length: file.length } as Clip
    const pxPerSecond = pxPerTick.value * TICKS_PER_SECOND
    drawFace(canvas, clip, take, { from, to, pxPerSecond, height: height.value, slip: 0 }, draw)
  }
}
watchPostEffect(draw)
</script>

<template>
  <div
    ref="lane"
    class="lane"
    :class="{ locked }"
    role="slider"
    tabindex="0"
    :aria-label="label"
    :aria-valuenow="Math.round((files[0]?.at ?? 0) / (TICKS_PER_SECOND / 1000))"
    data-test="angle-lane"
    @pointerdown="!locked && grip.down($event, undefined)"
    @keydown="!locked && grip.key($event, undefined)"
  >
    <div
      v-for="{ file, left, width: wide } in shown"
      :key="file.file"
      class="file"
      :style="{ transform: `translateX(${left + pulled}px)`, width: `${wide}px` }"
    >
      <canvas ref="canvases" aria-hidden="true" />
    </div>
    <i class="now" :style="{ left: `${px(at)}px` }" />
  </div>
</template>

<style scoped>
.lane {
  position: relative;
  height: 40px;
  overflow: hidden;
  border-radius: 8px 8px 2px 8px;
  background: var(--rail);
  cursor: ew-resize;
  touch-action: none;
}
.locked {
  cursor: default;
}
.file {
  position: absolute;
  inset: 0 auto 0 0;
  background: var(--sound);
  border-radius: 6px 6px 2px 6px;
  overflow: hidden;
}
canvas {
  position: absolute;
  top: 0;
  height: 100%;
}
.now {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 2px;
  margin-left: -1px;
  background: var(--accent);
}
</style>
