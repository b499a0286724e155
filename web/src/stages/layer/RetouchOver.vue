<script setup lang="ts">
/** Strokes on the picture: painted; or one taken, moved, and given another source. */
import { computed, ref } from 'vue'
import type { RetouchedClip, RetouchStroke } from '@/api/types'
import { framedAlong, type Frame } from '@/picture/masks'
import type { DrawnPoint, Point } from '@/picture/placing'
import StrokeSurface from '@/picture/StrokeSurface.vue'
import { drawnOn, lengthOn, spotOf, usePictureFrame } from '@/picture/usePictureFrame'
import { useDrawing } from '@/stores/drawing'
import { useRetouching } from '@/stores/retouching'
import type { Layer } from '@/inhand/useLayer'
import RetouchHandles from './RetouchHandles.vue'
import { offsetFrom, takesFrom } from './retouch'
import { useRetouch } from './useRetouch'

const props = defineProps<{ layer: Layer; clip: RetouchedClip; width: number; height: number }>()
const drawing = useDrawing()
const store = useRetouching()
const { strokes, tool, brush, paint, alongOfPart } = useRetouch(() => props.clip)

const { frame } = usePictureFrame(() => props.width)
const frameOf = (stroke: RetouchStroke): Frame | null => {
  const along = alongOfPart(stroke)
  return frame.value && along ? framedAlong(frame.value, along) : frame.value
}
const line = computed(() => lengthOn(frame.value, brush.value.width ?? 0.06))

function drawn(points: DrawnPoint[]) {
  if (!frame.value) return
  const line = drawnOn(frame.value, points)
  paint(line.points, line.pressures)
}

const brushAt = ref<{ tip: Point; from: Point | null } | null>(null)
/** Where the picture comes from that is painted at this moment. */
const marked = computed<Point | null>(() => {
  const at = frame.value
  if (!at || !store.source || !takesFrom(tool.value.kind)) return null
  const now = brushAt.value
  const [x, y] = store.source
  if (!now) return at.to({ x, y })
  const from = offsetFrom(spotOf(at, now.from ?? now.tip), store)
  // Before the first stroke nothing has begun to move: the place itself is shown.
  if (!from || (!now.from && !store.offset) || (!now.from && !store.goesOn)) return at.to({ x, y })
  const [tipX, tipY] = spotOf(at, now.tip)
  return at.to({ x: tipX + from[0], y: tipY + from[1] })
})

function pick(points: DrawnPoint[]) {
  const last = points.at(-1)
  if (last && frame.value) store.pick(spotOf(frame.value, last))
  drawing.tool = 'retouch'
}
</script>

<template>
  <StrokeSurface
    v-if="drawing.tool === 'source'"
    :width="width"
    :height="height"
    :line="line"
    :told="$t('layer.retouchPart.tapTheSource')"
    @drawn="pick"
  />
  <StrokeSurface
    v-else-if="drawing.tool === 'retouch'"
    :width="width"
    :height="height"
    :line="line"
    presses
    :told="$t('layer.retouchPart.paintWith', { tool: tool.name })"
    @drawn="drawn"
    @at="brushAt = $event"
  />
  <RetouchHandles
    v-else
    :layer="layer"
    :strokes="strokes"
    :width="width"
    :height="height"
    :frame-of="frameOf"
  />
  <svg v-if="marked && drawing.tool === 'retouch'" class="marked" aria-hidden="true">
    <circle :cx="marked.x" :cy="marked.y" :r="Math.max(4, line / 2)" data-test="source-mark" />
    <path :d="`M${marked.x - 6} ${marked.y}h12M${marked.x} ${marked.y - 6}v12`" />
  </svg>
  <p v-if="drawing.tool === 'source'" class="told" role="status">
    {{ $t('layer.retouchPart.tapTheSource') }}
  </p>
</template>

<style scoped>
.marked {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
  overflow: visible;
}
.marked circle,
.marked path {
  fill: none;
  stroke: #fff;
  stroke-width: 1.5;
  stroke-dasharray: 4 3;
}
.marked path {
  stroke-dasharray: none;
}
.told {
  position: absolute;
  inset: auto 0 10px;
  margin: 0 auto;
  width: fit-content;
  pointer-events: none;
  background: rgb(22 22 22 / 78%);
  padding: 4px 10px;
  border-radius: 8px 8px 2px 8px;
  font-size: 13px;
}
</style>
