<script setup lang="ts">
import { computed, ref } from 'vue'
import { useGrip } from '@/controls/useGrip'
import { useScreen } from '@/player/inject'
import type { Point } from './placing'
import { usePlacing } from './usePlacing'

const props = defineProps<{
  width: number
  height: number
  /** Whether a tap is told, so that another layer can be taken in hand. */
  tappable?: boolean
  /** Whether width and height can be drawn apart, at the sides. */
  sides?: boolean
  /** Whether its top edge can be drawn aside, so that it leans. */
  leans?: boolean
  /** Whether the point it turns about is shown, or handled too. */
  pivot?: 'shown' | 'handled'
}>()
const emit = defineEmits<{ tap: [at: { x: number; y: number }] }>()
const { player } = useScreen()
const frame = ref<SVGSVGElement | null>(null)
const scale = computed(() => props.width / placing.canvas.value.width)
const placing = usePlacing(
  player,
  computed(() => scale.value),
  { box: () => frame.value?.getBoundingClientRect() ?? null, tapped: (at) => tapped(at) },
)

const spots = computed(() =>
  (placing.corners.value ?? []).map(({ x, y }) => ({ x: x * scale.value, y: y * scale.value })),
)
const outline = computed(() => spots.value.map(({ x, y }) => `${x},${y}`).join(' '))
/** The turning handle stands off the middle of the top edge. */
const stalk = computed(() => {
  const [a, b, c] = spots.value
  if (!a || !b || !c) return null
  const top = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }
  const long = Math.hypot(b.x - c.x, b.y - c.y) || 1
  const away = { x: (b.x - c.x) / long, y: (b.y - c.y) / long }
  const end = { x: top.x + away.x * 34, y: top.y + away.y * 34 }
  const inside = end.y < 10 || end.y > props.height - 10 || end.x < 10 || end.x > props.width - 10
  const sign = inside ? -1 : 1
  return { top, end: { x: top.x + away.x * 34 * sign, y: top.y + away.y * 34 * sign } }
})

/** Middles of the sides: right and bottom. */
const middles = computed(() => {
  const [, b, c, d] = spots.value
  if (!props.sides || !b || !c || !d) return []
  const between = (p: Point, q: Point) => ({ x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 })
  return [
    { id: 'width' as const, ...between(b, c) },
    { id: 'height' as const, ...between(c, d) },
  ]
})
/** A quarter along the top edge, clear of the stalk and the corners. */
const slant = computed(() => {
  const [a, b] = spots.value
  if (!props.leans || !a || !b) return null
  return { x: a.x + (b.x - a.x) * 0.27, y: a.y + (b.y - a.y) * 0.27 }
})
const cross = computed(() => {
  const at = props.pivot ? placing.pivot.value : null
  return at ? { x: at.x * scale.value, y: at.y * scale.value } : null
})

function tapped({ x, y }: Point) {
  const box = frame.value?.getBoundingClientRect()
  if (!box || !props.tappable) return
  emit('tap', { x: (x - box.left) / scale.value, y: (y - box.top) / scale.value })
}

const ground = useGrip({ move() {}, drop() {}, tap: tapped })
</script>

<template>
  <svg
    ref="frame"
    class="handles"
    :viewBox="`0 0 ${width} ${height}`"
    aria-hidden="true"
    data-test="handles"
  >
    <rect
      v-if="tappable"
      class="ground"
      :width="width"
      :height="height"
      data-test="picture-ground"
      @pointerdown="ground.down($event)"
    />
    <g v-if="placing.clip.value && placing.corners.value">
      <polygon
        :points="outline"
        class="body"
        data-test="handle-body"
        @pointerdown.stop="placing.down($event, 'move')"
      />
      <line
        v-if="stalk"
        class="stalk"
        :x1="stalk.top.x"
        :y1="stalk.top.y"
        :x2="stalk.end.x"
        :y2="stalk.end.y"
      />
      <g v-for="(spot, index) in spots" :key="index">
        <circle
          class="reach"
          :cx="spot.x"
          :cy="spot.y"
          r="22"
          @pointerdown.stop="placing.down($event, 'size')"
        />
        <circle class="knob" :cx="spot.x" :cy="spot.y" r="8" />
      </g>
      <g v-if="stalk">
        <circle
          class="reach"
          :cx="stalk.end.x"
          :cy="stalk.end.y"
          r="22"
          @pointerdown.stop="placing.down($event, 'turn')"
        />
        <path class="knob" :d="`M${stalk.end.x} ${stalk.end.y - 9}l7 6-7 12-7-12z`" />
      </g>
      <g v-for="one in middles" :key="one.id">
        <circle
          class="reach"
          :cx="one.x"
          :cy="one.y"
          r="18"
          :data-test="`handle-${one.id}`"
          @pointerdown.stop="placing.down($event, one.id)"
        />
        <rect class="knob" :x="one.x - 6" :y="one.y - 6" width="12" height="12" rx="3" />
      </g>
      <g v-if="slant">
        <circle
          class="reach"
          :cx="slant.x"
          :cy="slant.y"
          r="14"
          data-test="handle-lean"
          @pointerdown.stop="placing.down($event, 'lean')"
        />
        <path class="knob" :d="`M${slant.x - 4} ${slant.y - 5}h12l-4 10h-12z`" />
      </g>
      <g v-if="cross">
        <circle
          v-if="pivot === 'handled'"
          class="reach"
          :cx="cross.x"
          :cy="cross.y"
          r="22"
          data-test="handle-pivot"
          @pointerdown.stop="placing.down($event, 'pivot')"
        />
        <path class="cross" :d="`M${cross.x - 12} ${cross.y}h24M${cross.x} ${cross.y - 12}v24`" />
        <path
          class="cross thin"
          :d="`M${cross.x - 12} ${cross.y}h24M${cross.x} ${cross.y - 12}v24`"
        />
      </g>
    </g>
    <line
      v-if="placing.guides.value.x !== null"
      class="guide"
      :x1="placing.guides.value.x * scale"
      :x2="placing.guides.value.x * scale"
      y1="0"
      :y2="height"
    />
    <line
      v-if="placing.guides.value.y !== null"
      class="guide"
      :y1="placing.guides.value.y * scale"
      :y2="placing.guides.value.y * scale"
      x1="0"
      :x2="width"
    />
  </svg>
</template>

<style scoped>
.handles {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  overflow: visible;
  touch-action: none;
}
.ground {
  fill: transparent;
}
.body {
  fill: transparent;
  stroke: var(--accent);
  stroke-width: 2;
  cursor: move;
}
.stalk {
  stroke: var(--accent);
  stroke-width: 2;
}
.knob {
  fill: #fff;
  stroke: var(--accent);
  stroke-width: 2;
  pointer-events: none;
}
.cross {
  stroke: #161616;
  stroke-width: 4;
  stroke-linecap: round;
  pointer-events: none;
}
.cross.thin {
  stroke: #fff;
  stroke-width: 2;
}
.reach {
  fill: transparent;
  cursor: grab;
}
.guide {
  stroke: var(--mark);
  stroke-width: 2;
  pointer-events: none;
}
</style>
