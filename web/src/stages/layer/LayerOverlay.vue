<script setup lang="ts">
/** What Layer puts on the picture: handles of the layer in hand, of its masks, paths and fills. */
import { computed, watch } from 'vue'
import type { Contour, Fill, Step } from '@/api/types'
import { changedAt, valueAt } from '@/motion/keys'
import { read } from '@/motion/props'
import { useScreen } from '@/player/inject'
import { useLayer } from '@/inhand/useLayer'
import { useHand } from '@/stores/hand'
import { useDrawing } from '@/stores/drawing'
import { useLayering } from '@/stores/layering'
import { useProject } from '@/stores/project'
import { isRetouched, TICKS_PER_SECOND } from '@/api/types'
import { tickOf } from '@/time'
import FillHandles from '@/picture/FillHandles.vue'
import CutoutOver from './CutoutOver.vue'
import EffectSpots from './EffectSpots.vue'
import FollowOver from './FollowOver.vue'
import RetouchOver from './RetouchOver.vue'
import MaskSurface from '@/picture/MaskSurface.vue'
import { frameOfMask, type Frame } from '@/picture/masks'
import PathHandles from '@/picture/PathHandles.vue'
import PictureHandles from '@/picture/PictureHandles.vue'
import { mapped, thinned, unitCorners, type Point } from '@/picture/placing'
import StrokeSurface from '@/picture/StrokeSurface.vue'
import { useLayerMasks } from './layerMasks'
import { usePlacing } from '@/picture/usePlacing'
import { useTaps } from '@/picture/useTaps'

const props = defineProps<{ width: number; height: number }>()
const layering = useLayering()
const drawing = useDrawing()
const project = useProject()
const hand = useHand()
const { player } = useScreen()
const layer = useLayer()
const scale = computed(() => props.width / placing.canvas.value.width)
const placing = usePlacing(
  player,
  computed(() => scale.value),
)

const { tapAt } = useTaps(player)
const clip = computed(() => placing.clip.value)
/** From canvas pixels around the clip's middle to the screen. */
const ownFrame = computed<Frame | null>(() => {
  if (!placing.placed.value) return null
  const { left, top } = placing.area.value
  const corners = unitCorners(placing.placed.value, placing.area.value)
  const here = corners.map(({ x, y }) => mapped(placing.shown.value, { x: x + left, y: y + top }))
  const unit = frameOfMask(here, 1, scale.value)
  return {
    to: ({ x, y }) => unit.to({ x: x / 2, y: y / 2 }),
    back: (point) => {
      const { x, y } = unit.back(point)
      return { x: x * 2, y: y * 2 }
    },
  }
})

const masks = useLayerMasks(layer)
watch(
  () => masks.masks.value.length,
  (count) => {
    if (layering.mask >= count) layering.mask = Math.max(0, count - 1)
  },
)

const shapePath = computed<Contour[] | null>(() => {
  const one = clip.value
  if (one?.kind !== 'shape' || one.form?.kind !== 'path') return null
  return (valueAt(one.form.contours, layer.local.value) as Contour[] | undefined) ?? []
})
function shapePathStep(path: Contour[]): Step {
  const before = read(clip.value, 'form/contours')
  return layer.step({ 'form/contours': changedAt(before, layer.local.value, path) })
}

const fillPath = computed(() => layering.fillOf(clip.value))
const fill = computed<Exclude<Fill, { kind: 'plain' }> | null>(() => {
  if (layering.part !== 'content' || !fillPath.value) return null
  const found = read(clip.value, fillPath.value) as Fill | null | undefined
  return found && found.kind !== 'plain' ? found : null
})
const fillEnds = computed(() => ({
  begin: valueAt(fill.value?.begin, layer.local.value) as [number, number],
  end: valueAt(fill.value?.end, layer.local.value) as [number, number],
}))
const fillValues = (ends: object) =>
  Object.fromEntries(
    Object.entries(ends).map(([name, value]) => [`${fillPath.value}/${name}`, value as unknown]),
  )

/** The effect whose values are open. */
const effect = computed(() =>
  layering.part === 'effects'
    ? (clip.value?.effects?.find((one) => one.id === layering.effect) ?? null)
    : null,
)
/**
 * Its places, in canvas pixels from the middle of the clip: an effect is as large on a layer that is
 * sized. An adjustment's are counted from the middle of the canvas.
 */
const effectFrame = computed<Frame | null>(() => {
  const [own, placed] = [ownFrame.value, placing.placed.value]
  if (clip.value?.kind !== 'adjustment' && own && placed) {
    const [across, down] = [placed.across || 1, placed.down || 1]
    return {
      to: ({ x, y }) => own.to({ x: x / across, y: y / down }),
      back: (point) => {
        const { x, y } = own.back(point)
        return { x: x * across, y: y * down }
      },
    }
  }
  const [middleX, middleY] = [props.width / 2, props.height / 2]
  return {
    to: ({ x, y }) => ({ x: middleX + x * scale.value, y: middleY + y * scale.value }),
    back: ({ x, y }) => ({ x: (x - middleX) / scale.value, y: (y - middleY) / scale.value }),
  }
})

function toCanvas(point: Point): [number, number] {
  const { width, height } = placing.canvas.value
  const round = (value: number) => Math.round(value * 100) / 100
  return [round(point.x / scale.value - width / 2), round(point.y / scale.value - height / 2)]
}

async function drawByHand(points: Point[]) {
  if (points.length < 3) return
  const first = points[0]
  const last = points.at(-1)
  const span = Math.max(
    ...points.map((p) => Math.hypot(p.x - (first?.x ?? 0), p.y - (first?.y ?? 0))),
  )
  const round =
    first && last && Math.hypot(first.x - last.x, first.y - last.y) < Math.min(24, span / 4)
  const own = ownFrame.value
  const onto = shapePath.value && own && hand.one ? clip.value : null
  const place = (point: Point): [number, number] => {
    if (!onto || !own) return toCanvas(point)
    const { x, y } = own.back(point)
    return [x, y]
  }
  player.endTrial()
  const { made } = await project.make({
    kind: 'draw_freehand',
    points: thinned(points).map(place),
    smoothness: layering.smoothness,
    closed: Boolean(round),
    clip: onto?.id ?? null,
    at: tickOf(player.shown.value, project.rate),
    length: 3 * TICKS_PER_SECOND,
    ...layering.drawn,
  })
  const fresh = made.find((id) => project.findClip(id))
  if (fresh) hand.take(fresh)
}

function pick(event: PointerEvent) {
  const box = (event.currentTarget as Element).getBoundingClientRect()
  layering.tapped = {
    x: (event.clientX - box.left) / scale.value,
    y: (event.clientY - box.top) / scale.value,
  }
  drawing.tool = ''
}
</script>

<template>
  <div class="over">
    <div
      v-if="drawing.tool === 'pick'"
      class="pick"
      role="button"
      tabindex="0"
      :aria-label="$t('layer.layerOverlay.tapTheScreenBehind')"
      data-test="layer-pick"
      @pointerdown="pick"
      @keydown.esc.stop="drawing.tool = ''"
    >
      <span>{{ $t('layer.layerOverlay.tapTheScreenBehind') }}</span>
    </div>
    <StrokeSurface
      v-else-if="drawing.tool === 'freehand'"
      :width="width"
      :height="height"
      :line="layering.drawn.width * scale"
      :told="$t('layer.layerOverlay.drawALineByHand')"
      @drawn="drawByHand"
    />
    <FollowOver
      v-else-if="layering.part === 'follow' && clip?.kind === 'video'"
      :clip="clip"
      :width="width"
      :height="height"
    />
    <RetouchOver
      v-else-if="layering.part === 'retouch' && isRetouched(clip)"
      :layer="layer"
      :clip="clip"
      :width="width"
      :height="height"
    />
    <CutoutOver
      v-else-if="layering.part === 'cutout' && (clip?.kind === 'still' || clip?.kind === 'video')"
      :layer="layer"
      :clip="clip"
      :width="width"
      :height="height"
    />
    <MaskSurface
      v-else-if="layering.part === 'masks' && clip && masks.masks.value.length"
      :owner="masks"
      :width="width"
      :height="height"
    />
    <PathHandles
      v-else-if="layering.part === 'content' && shapePath && ownFrame && !fill"
      :path="shapePath"
      :width="width"
      :height="height"
      :to="ownFrame.to"
      :back="ownFrame.back"
      :drawing="drawing.tool === 'pen'"
      :name="$t('layer.layerOverlay.pathOfTheShape')"
      @trying="player.tryOut(shapePathStep($event))"
      @set="layer.send(shapePathStep($event))"
      @drawn="drawing.tool = ''"
    />
    <template v-else>
      <PictureHandles :width="width" :height="height" tappable @tap="tapAt" />
      <FillHandles
        v-if="fill && ownFrame && fillEnds.begin && fillEnds.end"
        :begin="fillEnds.begin"
        :end="fillEnds.end"
        :round="fill.kind === 'round'"
        :width="width"
        :height="height"
        :to="ownFrame.to"
        :back="ownFrame.back"
        @trying="layer.trying(fillValues($event))"
        @set="layer.set(fillValues($event))"
      />
      <EffectSpots
        v-if="effect && effectFrame"
        :key="effect.id"
        :layer="layer"
        :effect="effect"
        :frame="effectFrame"
        :width="width"
        :height="height"
      />
    </template>
  </div>
</template>

<style scoped>
.over,
.pick {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.pick {
  cursor: crosshair;
  touch-action: none;
  display: grid;
  place-items: end center;
  padding-bottom: 14px;
}
.pick span {
  background: rgb(22 22 22 / 78%);
  padding: 4px 10px;
  border-radius: 8px 8px 2px 8px;
  font-size: 13px;
}
</style>
