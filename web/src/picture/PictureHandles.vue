<script setup lang="ts">
import { computed, ref } from 'vue'
import { useScreen } from '@/player/inject'
import HandOutlines from './HandOutlines.vue'
import { middleOf, type Point } from './placing'
import { standing } from './standing'
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
const handles = computed(() =>
  spots.value.length === 4
    ? standing(spots.value, { width: props.width, height: props.height })
    : null,
)
const middle = computed(() => middleOf(spots.value))
const around = computed(() => handles.value?.frame.map(({ x, y }) => `${x},${y}`).join(' ') ?? '')
const standsOff = computed(() => around.value !== outline.value)
const middles = computed(() => {
  const sides = props.sides ? handles.value?.sides : null
  if (!sides) return []
  return [
    { id: 'width' as const, ...sides.width },
    { id: 'height' as const, ...sides.height },
  ]
})
const cross = computed(() => {
  const at = props.pivot ? placing.pivot.value : null
  return at ? { x: at.x * scale.value, y: at.y * scale.value } : null
})

/** Shorter over what is small, so that it stays seen. */
function crossAt({ x, y }: Point): string {
  const arm = standsOff.value ? 6 : 12
  return `M${x - arm} ${y}h${2 * arm}M${x} ${y - arm}v${2 * arm}`
}

function tapped({ x, y }: Point) {
  const box = frame.value?.getBoundingClientRect()
  if (!box || !props.tappable) return
  emit('tap', { x: (x - box.left) / scale.value, y: (y - box.top) / scale.value })
}
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
      class="ground"
      :width="width"
      :height="height"
      data-test="picture-ground"
      @pointerdown="placing.down($event, 'ground')"
    />
    <HandOutlines :scale="scale" />
    <g v-if="placing.clip.value && placing.corners.value">
      <polygon
        :points="outline"
        class="body"
        data-test="handle-body"
        @pointerdown.stop="placing.down($event, 'move')"
      />
      <polygon v-if="standsOff" :points="around" class="around" />
      <line
        v-if="handles?.turn"
        class="stalk"
        :x1="handles.turn.from.x"
        :y1="handles.turn.from.y"
        :x2="handles.turn.at.x"
        :y2="handles.turn.at.y"
      />
      <g v-for="(spot, index) in handles?.corners" :key="index">
        <circle
          class="reach"
          :cx="spot.x"
          :cy="spot.y"
          r="22"
          data-test="handle-size"
          @pointerdown.stop="placing.down($event, 'size')"
        />
        <circle class="knob" :cx="spot.x" :cy="spot.y" r="8" />
      </g>
      <g v-if="handles?.turn">
        <circle
          class="reach"
          :cx="handles.turn.at.x"
          :cy="handles.turn.at.y"
          r="22"
          data-test="handle-turn"
          @pointerdown.stop="placing.down($event, 'turn')"
        />
        <path class="knob" :d="`M${handles.turn.at.x} ${handles.turn.at.y - 9}l7 6-7 12-7-12z`" />
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
      <g v-if="leans && handles?.lean">
        <circle
          class="reach"
          :cx="handles.lean.x"
          :cy="handles.lean.y"
          r="14"
          data-test="handle-lean"
          @pointerdown.stop="placing.down($event, 'lean')"
        />
        <path class="knob" :d="`M${handles.lean.x - 4} ${handles.lean.y - 5}h12l-4 10h-12z`" />
      </g>
      <circle
        v-if="standsOff"
        class="reach"
        :cx="middle.x"
        :cy="middle.y"
        r="22"
        data-test="handle-move"
        @pointerdown.stop="placing.down($event, 'move')"
      />
      <g v-if="cross">
        <circle
          v-if="pivot === 'handled'"
          class="reach"
          :cx="cross.x"
          :cy="cross.y"
          r="22"
          data-fine
          data-test="handle-pivot"
          @pointerdown.stop="placing.down($event, 'pivot')"
        />
        <path class="cross" :d="crossAt(cross)" />
        <path class="cross thin" :d="crossAt(cross)" />
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
.around {
  fill: none;
  stroke: var(--accent);
  stroke-dasharray: 3 5;
  pointer-events: none;
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
