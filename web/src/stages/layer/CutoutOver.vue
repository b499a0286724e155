<script setup lang="ts">
/** Marks on a picture that say what is kept, and what is not. */
import { computed } from 'vue'
import type { StillClip, VideoClip } from '@/api/types'
import type { Layer } from '@/inhand/useLayer'
import PictureHandles from '@/picture/PictureHandles.vue'
import type { DrawnPoint } from '@/picture/placing'
import StrokeSurface from '@/picture/StrokeSurface.vue'
import { drawnOn, lengthOn, spotOf, usePictureFrame } from '@/picture/usePictureFrame'
import { useTaps } from '@/picture/useTaps'
import { useScreen } from '@/player/inject'
import { useDrawing } from '@/stores/drawing'
import { t } from '@/texts'
import { aroundOf, outlineOf } from './around'
import { useCutout } from './useCutout'

const props = defineProps<{
  layer: Layer
  clip: StillClip | VideoClip
  width: number
  height: number
}>()
/** Tools that mark. */
const MARKING = ['cut', 'hair', 'around', 'person']
const drawing = useDrawing()
const { player } = useScreen()
const { tapAt } = useTaps(player)
const { strokes, around, persons, add, addPerson, surround } = useCutout(
  props.layer,
  () => props.clip,
)
const { frame } = usePictureFrame(() => props.width)
const drawn = computed(() => {
  const at = frame.value
  if (!at) return []
  return strokes.value.map(({ points, width, drop, hair }) => {
    const spots = points.map(([x, y]) => at.to({ x, y }))
    if (spots.length === 1) spots.push(...spots)
    return {
      line: spots.map(({ x, y }) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' '),
      wide: Math.max(2, lengthOn(at, width ?? 0.06)),
      drop,
      hair,
    }
  })
})

const outline = computed(() => {
  const at = frame.value
  return at ? outlineOf(around.value).map(([x, y]) => at.to({ x, y })) : []
})

function enclose(points: DrawnPoint[]) {
  if (!frame.value) return
  const found = aroundOf(drawnOn(frame.value, points).points)
  if (!found.length) return
  surround(found)
  drawing.tool = ''
}

const tapped = computed(() => {
  const at = frame.value
  return at ? persons.value.map(([x, y]) => at.to({ x, y })) : []
})

function tapPerson([point]: DrawnPoint[]) {
  if (!frame.value || !point) return
  addPerson(spotOf(frame.value, point))
  drawing.tool = ''
}

const paints = computed(() => {
  if (drawing.tool === 'hair') return t('layer.cutoutPart.paintHair')
  return drawing.brush.erase ? t('layer.cutoutPart.paintDrop') : t('layer.cutoutPart.paintKeep')
})
function paint(points: DrawnPoint[]) {
  if (!frame.value) return
  const hair = drawing.tool === 'hair'
  const { width, erase } = drawing.brush
  add({ points: drawnOn(frame.value, points).points, width, drop: erase && !hair, hair })
}
</script>

<template>
  <template v-if="MARKING.includes(drawing.tool)">
    <svg class="marks" :viewBox="`0 0 ${width} ${height}`" aria-hidden="true">
      <polygon
        v-if="outline.length"
        :points="outline.map(({ x, y }) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' ')"
      />
      <polyline
        v-for="(one, index) in drawn"
        :key="index"
        :points="one.line"
        :stroke-width="one.wide"
        :class="{ drop: one.drop, hair: one.hair }"
      />
      <circle v-for="({ x, y }, index) in tapped" :key="`person-${index}`" :cx="x" :cy="y" r="9" />
    </svg>
    <StrokeSurface
      v-if="drawing.tool === 'person'"
      :width="width"
      :height="height"
      :line="3"
      :told="$t('layer.cutoutPart.tapPerson')"
      @drawn="tapPerson"
    />
    <StrokeSurface
      v-else-if="drawing.tool === 'around'"
      :width="width"
      :height="height"
      :line="3"
      :told="$t('layer.cutoutPart.drawAround')"
      @drawn="enclose"
    />
    <StrokeSurface
      v-else
      :width="width"
      :height="height"
      :line="lengthOn(frame, drawing.brush.width)"
      :wipes="drawing.tool === 'cut' && drawing.brush.erase"
      :told="paints"
      @drawn="paint"
    />
  </template>
  <PictureHandles v-else :width="width" :height="height" tappable @tap="tapAt" />
</template>

<style scoped>
.marks {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
polyline {
  fill: none;
  stroke: rgb(111 207 151 / 45%);
  stroke-linecap: round;
  stroke-linejoin: round;
}
polygon,
circle {
  fill: rgb(111 207 151 / 10%);
  stroke: rgb(111 207 151 / 80%);
  stroke-width: 2;
}
.hair {
  stroke: rgb(240 182 74 / 45%);
}
.drop {
  stroke: rgb(22 22 22 / 50%);
}
</style>
