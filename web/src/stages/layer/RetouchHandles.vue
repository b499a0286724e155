<script setup lang="ts">
/** The strokes that were painted: one is taken by a tap, moved, its source moved. */
import { computed, ref } from 'vue'
import type { RetouchStroke } from '@/api/types'
import { useDraft } from '@/controls/useDraft'
import { useGrip } from '@/controls/useGrip'
import type { Layer } from '@/inhand/useLayer'
import type { Spot } from '@/motion/quads'
import type { Frame } from '@/picture/masks'
import PictureKnob from '@/picture/PictureKnob.vue'
import type { Point } from '@/picture/placing'
import { lengthOn } from '@/picture/usePictureFrame'
import { useRetouching } from '@/stores/retouching'
import { middleOfPoints, sourceOf } from './retouch'

const props = defineProps<{
  layer: Layer
  strokes: readonly RetouchStroke[]
  width: number
  height: number
  /** From the measure in which a stroke is kept to where it is on the screen. */
  frameOf: (stroke: RetouchStroke) => Frame | null
}>()
const store = useRetouching()
const svg = ref<SVGSVGElement | null>(null)

/** What is dragged of the stroke in hand. */
type Values = { points?: Spot[]; source?: Spot }
const draft = useDraft<Values>(() => props.strokes.find(({ id }) => id === store.taken))

/** The least width of a stroke, in pixels of the screen, by which it is taken. */
const TOUCH = 28

const drawn = computed(() =>
  props.strokes.flatMap((one) => {
    const frame = props.frameOf(one)
    if (!frame) return []
    const own = one.id === store.taken ? { ...one, ...draft.value } : one
    const spots = own.points.map(([x, y]) => frame.to({ x, y }))
    const wide = lengthOn(frame, own.width ?? 0.06)
    return [{ stroke: own, frame, wide, path: pathOf(spots), at: spots[0] }]
  }),
)
const inHand = computed(() => drawn.value.find(({ stroke }) => stroke.id === store.taken) ?? null)
const source = computed(() => {
  const one = inHand.value
  const from = one && sourceOf(one.stroke)
  if (!one || !from) return null
  const [x, y] = middleOfPoints(one.stroke.points)
  const [to, by] = [one.frame.to({ x, y }), one.frame.to({ x: x + from[0], y: y + from[1] })]
  return { from: to, to: by }
})

function pathOf(spots: Point[]): string {
  const [first] = spots
  if (!first) return ''
  const rest = spots.length > 1 ? spots.slice(1) : [first]
  return `M${first.x} ${first.y}` + rest.map(({ x, y }) => `L${x} ${y}`).join('')
}

type Held = { what: 'stroke' | 'source'; id: string }
let from: { spot: Point; points: Spot[]; source: Spot } | null = null
const grip = useGrip<Held>({
  begin({ id }, { event }) {
    store.taken = id
    const [one, spot] = [inHand.value, spotOf(event)]
    if (!one || !spot) return false
    from = {
      spot,
      points: one.stroke.points,
      source: sourceOf(one.stroke) ?? [0, 0],
    }
    return !props.layer.locked.value
  },
  move({ event }, { what }) {
    const now = spotOf(event)
    if (!from || !now) return
    const [x, y] = [now.x - from.spot.x, now.y - from.spot.y]
    draft.value =
      what === 'source'
        ? { source: [from.source[0] + x, from.source[1] + y] }
        : { points: from.points.map(([a, b]): Spot => [a + x, b + y]) }
    props.layer.tryPart('strokes', store.taken, draft.value)
  },
  async drop() {
    const values = draft.value
    if (values && !(await props.layer.setPart('strokes', store.taken, values))) draft.value = null
  },
  cancel() {
    draft.value = null
    props.layer.endTrial()
  },
})

function spotOf(event: PointerEvent): Point | null {
  const box = svg.value?.getBoundingClientRect()
  const one = inHand.value
  return box && one
    ? one.frame.back({ x: event.clientX - box.left, y: event.clientY - box.top })
    : null
}

const remove = () => store.taken && props.layer.removePart('strokes', store.taken)
</script>

<template>
  <svg ref="svg" class="strokes" :width="width" :height="height">
    <g v-for="{ stroke, wide, path, at } in drawn" :key="stroke.id">
      <path
        class="touch"
        :d="path"
        :stroke-width="Math.max(wide, TOUCH)"
        role="button"
        tabindex="0"
        :aria-pressed="stroke.id === store.taken"
        :aria-label="$t('layer.retouchPart.stroke')"
        data-test="stroke"
        @pointerdown.stop="grip.down($event, { what: 'stroke', id: stroke.id ?? '' })"
        @keydown="grip.key($event, { what: 'stroke', id: stroke.id ?? '' })"
        @keydown.delete.stop="((store.taken = stroke.id ?? ''), remove())"
      />
      <path
        class="body"
        :class="{ taken: stroke.id === store.taken, off: stroke.on === false }"
        :d="path"
        :stroke-width="Math.max(2, wide)"
      />
      <circle v-if="at" class="dot" :cx="at.x" :cy="at.y" r="3" />
    </g>
    <template v-if="source">
      <path class="lead" :d="`M${source.from.x} ${source.from.y}L${source.to.x} ${source.to.y}`" />
      <PictureKnob
        :x="source.to.x"
        :y="source.to.y"
        dark
        :label="$t('layer.retouchPart.source')"
        test="stroke-source"
        @down="grip.down($event, { what: 'source', id: store.taken })"
        @key="grip.key($event, { what: 'source', id: store.taken })"
      />
    </template>
  </svg>
</template>

<style scoped>
.strokes {
  position: absolute;
  inset: 0;
  pointer-events: none;
  touch-action: none;
}
path {
  fill: none;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.touch {
  stroke: transparent;
  pointer-events: stroke;
  cursor: move;
}
.body {
  stroke: rgb(255 255 255 / 12%);
}
.body.taken {
  stroke: rgb(255 138 107 / 32%);
}
.body.off {
  stroke: rgb(22 22 22 / 30%);
}
.dot {
  fill: #fff;
  stroke: #161616;
}
.lead {
  stroke: #fff;
  stroke-width: 1.5;
  stroke-dasharray: 4 3;
}
</style>
