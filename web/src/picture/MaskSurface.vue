<script setup lang="ts">
/** What masks put on the picture: forms with handles, the points of a path, a sheet to paint on. */
import { computed } from 'vue'
import type { BrushStrokeOf, Contour } from '@/api/types'
import { strokesAt, type MaskOwner } from '@/inhand/maskOwner'
import { changedAt, isKeyed, valueAt } from '@/motion/keys'
import { useScreen } from '@/player/inject'
import { useDrawing } from '@/stores/drawing'
import BrushTint from './BrushTint.vue'
import MaskHandles from './MaskHandles.vue'
import { framedAlong, within, type Frame } from './masks'
import LeaderSelect from './LeaderSelect.vue'
import { ledPath, type Leading } from './ledNodes'
import PathHandles from './PathHandles.vue'
import type { DrawnPoint } from './placing'
import StrokeSurface from './StrokeSurface.vue'
import { useAlong } from './useAlong'
import { drawnOn, lengthOn, usePictureFrame } from './usePictureFrame'

const props = defineProps<{
  owner: MaskOwner
  width: number
  height: number
  /** Whether what is painted is shown as a tint, since it does not show by itself. */
  tinted?: boolean
}>()
const drawing = useDrawing()
const { player } = useScreen()
const { frame: whole } = usePictureFrame(() => props.width)

const { trackers, tick, alongOfPart } = useAlong()
const masks = computed(() => props.owner.masks.value)
const taken = computed(() => props.owner.taken.value)
const mask = computed(() => masks.value[taken.value] ?? null)
const local = computed(() => props.owner.local.value)

/** From the measure of the mask in hand (heights of the picture) to the screen. */
const frame = computed<Frame | null>(() => {
  if (!whole.value || !mask.value) return null
  const centre = valueAt(mask.value.centre, local.value) as [number, number] | undefined
  const turn = valueAt(mask.value.turn, local.value) as number | undefined
  const along = alongOfPart(mask.value)
  return within(along ? framedAlong(whole.value, along) : whole.value, centre ?? [0, 0], turn ?? 0)
})
/** How points go along by themselves. */
const leading = computed<Leading>(() => ({
  centre: (valueAt(mask.value?.centre, local.value) as [number, number] | undefined) ?? [0, 0],
  turn: (valueAt(mask.value?.turn, local.value) as number | undefined) ?? 0,
  along: alongOfPart(mask.value),
  alongOf: (node) => (node.tracker ? alongOfPart(node) : null),
}))
const path = computed<Contour[]>(() => {
  if (mask.value?.kind !== 'path') return []
  const kept = (valueAt(mask.value.contours, local.value) as Contour[] | undefined) ?? []
  return ledPath(kept, leading.value)
})

const strokes = computed(() => strokesAt(mask.value, local.value))

function pathStep(path: Contour[]) {
  const before = mask.value?.kind === 'path' ? mask.value.contours : []
  const kept = ledPath(path, leading.value, true)
  return props.owner.step({ contours: changedAt(before, local.value, kept) }, taken.value)
}

function addStroke(points: DrawnPoint[]) {
  if (!frame.value) return
  const stroke: BrushStrokeOf = { ...drawnOn(frame.value, points), ...drawing.brush }
  if (mask.value?.kind === 'brush' && isKeyed(mask.value.strokes)) {
    const now = changedAt(mask.value.strokes, local.value, [...strokes.value, stroke])
    props.owner.send(props.owner.step({ strokes: now }, taken.value))
  } else props.owner.addStroke(taken.value, stroke)
}

const line = computed(() => lengthOn(frame.value, drawing.brush.width))
</script>

<template>
  <BrushTint
    v-if="tinted && mask?.kind === 'brush' && drawing.tool === 'brush' && frame"
    :strokes="strokes"
    :frame="frame"
    :width="width"
    :height="height"
  />
  <StrokeSurface
    v-if="mask?.kind === 'brush' && drawing.tool === 'brush'"
    :width="width"
    :height="height"
    :line="line"
    :wipes="drawing.brush.erase"
    presses
    :told="$t('picture.maskSurface.paintTheMask')"
    @drawn="addStroke"
  />
  <PathHandles
    v-else-if="mask?.kind === 'path' && frame"
    :path="path"
    :width="width"
    :height="height"
    :to="frame.to"
    :back="frame.back"
    :drawing="drawing.tool === 'pen'"
    :name="$t('picture.maskSurface.pathOfTheMask')"
    @trying="player.tryOut(pathStep($event))"
    @set="owner.send(pathStep($event))"
    @drawn="drawing.tool = ''"
  >
    <template v-if="trackers.length" #node="{ node, change }">
      <LeaderSelect
        :label="$t('picture.maskSurface.pointGoesAlong')"
        :none="$t('picture.maskSurface.withTheMask')"
        :taken="node.tracker"
        data-test="node-along"
        @take="change({ tracker: $event, since: tick })"
      />
    </template>
  </PathHandles>
  <MaskHandles
    v-else
    :width="width"
    :height="height"
    :masks="masks"
    :taken="taken"
    :step-of="owner.step"
    @take="owner.take"
  />
</template>
