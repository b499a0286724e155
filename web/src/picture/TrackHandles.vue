<script setup lang="ts">
/** What is followed, on the picture: its corners, dragged before it is followed and to put it right. */
import { computed, ref } from 'vue'
import { useDraft } from '@/controls/useDraft'
import { useGrip } from '@/controls/useGrip'
import {
  isSound,
  middleOf,
  shifted,
  stretched,
  swung,
  withCorner,
  withinQuad,
  type Quad,
  type Spot,
} from '@/motion/quads'
import type { Change } from '@/stores/tracking'
import PictureKnob from './PictureKnob.vue'
import { usePictureFrame } from './usePictureFrame'

const props = defineProps<{
  width: number
  height: number
  quad: Quad
  change: Change
  /** Whether it is new: then it is a box that is drawn larger or smaller. */
  fresh: boolean
  lost: boolean
  /** Spots that alone count of it, as shares across and down. */
  within?: Spot[]
}>()
const emit = defineEmits<{ set: [quad: Quad] }>()
const svg = ref<SVGSVGElement | null>(null)
const { frame } = usePictureFrame(() => props.width)
const draft = useDraft<Quad>(() => props.quad)
const quad = computed(() => draft.value ?? props.quad)
const spots = computed(() => {
  const at = frame.value
  return at ? quad.value.map(([x, y]) => at.to({ x, y })) : []
})
const path = computed(() => spots.value.map(({ x, y }) => `${x},${y}`).join(' '))
const counted = computed(() => {
  const at = frame.value
  if (!at) return []
  return (props.within ?? []).map((share) => {
    const [x, y] = withinQuad(quad.value, share)
    return at.to({ x, y })
  })
})
const middle = computed(() => {
  const [x, y] = middleOf(quad.value)
  return frame.value?.to({ x, y }) ?? { x: 0, y: 0 }
})
/** Corners as they are held: around a small thing they stand off, so that it can be seen. */
const knobs = computed(() =>
  spots.value.map(({ x, y }) => {
    const [right, below] = [x - middle.value.x, y - middle.value.y]
    const far = Math.hypot(right, below) || 1
    const by = Math.max(1, OFF / far)
    return { x: middle.value.x + right * by, y: middle.value.y + below * by }
  }),
)

/** Pixels of the screen from the middle of a thing to its corners, at the least. */
const OFF = 46
const LEAST = 0.012
let held: { quad: Quad; x: number; y: number } | null = null
/** A corner by its number, or -1 for all of it. */
const grip = useGrip<number>({
  begin(_, { event }) {
    const from = spotOf(event)
    held = from && { quad: quad.value, ...from }
    return Boolean(held)
  },
  move({ event }, corner) {
    const now = spotOf(event)
    if (!held || !now) return
    const next = changed(held.quad, corner, now.x - held.x, now.y - held.y)
    if (isSound(next)) draft.value = next
  },
  drop() {
    const kept = draft.value
    draft.value = null
    if (kept) emit('set', kept)
  },
  cancel: () => (draft.value = null),
})

function changed(from: Quad, corner: number, x: number, y: number): Quad {
  if (corner < 0) return shifted(from, x, y)
  const spot = from[corner] ?? from[0]
  const to: [number, number] = [spot[0] + x, spot[1] + y]
  if (props.change === 'leans') return withCorner(from, corner, to)
  return props.fresh || props.change === 'moves'
    ? stretched(from, to, LEAST)
    : swung(from, corner, to)
}

function spotOf(event: PointerEvent) {
  const box = svg.value?.getBoundingClientRect()
  if (!box || !frame.value) return null
  return frame.value.back({ x: event.clientX - box.left, y: event.clientY - box.top })
}
</script>

<template>
  <svg ref="svg" class="tracks" :width="width" :height="height">
    <polygon
      v-if="spots.length"
      class="thing"
      :class="{ lost }"
      :points="path"
      role="button"
      tabindex="0"
      :aria-label="$t('picture.trackHandles.thing')"
      data-test="track-thing"
      @pointerdown.stop="grip.down($event, -1)"
      @keydown="grip.key($event, -1)"
    />
    <circle
      v-for="(spot, index) in counted"
      :key="`spot-${index}`"
      class="spot"
      :cx="spot.x"
      :cy="spot.y"
      r="5"
    />
    <path
      v-if="!counted.length"
      class="cross"
      :d="`M${middle.x - 7} ${middle.y}h14M${middle.x} ${middle.y - 7}v14`"
    />
    <PictureKnob
      v-for="(spot, index) in knobs"
      :key="index"
      :x="spot.x"
      :y="spot.y"
      :label="$t('picture.trackHandles.corner', { n: index + 1 })"
      :test="`track-corner-${index}`"
      @down="grip.down($event, index)"
      @key="grip.key($event, index)"
    />
  </svg>
</template>

<style scoped>
.tracks {
  position: absolute;
  inset: 0;
  pointer-events: none;
  touch-action: none;
}
.thing {
  fill: #ffffff14;
  stroke: var(--accent);
  stroke-width: 2;
  pointer-events: auto;
  cursor: move;
}
.thing.lost {
  stroke-dasharray: 6 5;
  stroke: #fff;
}
.spot {
  fill: none;
  stroke: #fff;
  stroke-width: 2;
}
.cross {
  stroke: #fff;
  stroke-width: 1.5;
}
</style>
