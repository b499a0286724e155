<script setup lang="ts">
/** A curve through points: tap to add one, drag it, take it out by double tap or Delete. */
import { computed, ref } from 'vue'
import { arrowWay } from './arrows'
import { useDraft } from './useDraft'
import { useGrip } from './useGrip'
import { added, aroundAt, curveAt, moved, type Spot } from '@/motion/curve'
import { hueColour } from './hues'

const props = defineProps<{
  points: Spot[]
  /** Around the circle of hues, with rest at half the height. */
  hues?: boolean
  colour: string
  label: string
}>()
const emit = defineEmits<{ trying: [points: Spot[]]; set: [points: Spot[]] }>()

const W = 240
const H = 150
const svg = ref<SVGSVGElement | null>(null)
const draft = useDraft<Spot[]>(() => props.points)
const chosen = ref(-1)
const all = computed(() => draft.value ?? props.points)
const height = (x: number) => (props.hues ? aroundAt(all.value, x) : curveAt(all.value, x))
const line = computed(() =>
  Array.from({ length: 81 }, (_, i) => {
    const x = i / 80
    return `${(x * W).toFixed(1)},${(H - Math.min(1, Math.max(0, height(x))) * H).toFixed(1)}`
  }).join(' '),
)
const HUES = Array.from({ length: 25 }, (_, i) => ({
  at: `${(i / 24) * 100}%`,
  colour: hueColour(i * 15),
}))

function spotOf(event: PointerEvent | MouseEvent): Spot {
  const box = svg.value?.getBoundingClientRect()
  if (!box) return [0, 0]
  return [(event.clientX - box.left) / box.width, 1 - (event.clientY - box.top) / box.height]
}

/** The index of what is held; a press beside all points adds one. */
let holding = -1
const grip = useGrip({
  slop: 0,
  begin: (_, { event }) => takeHold(event),
  move({ event }) {
    draft.value = moved(all.value, holding, spotOf(event))
    emit('trying', draft.value)
  },
  drop: () => draft.value && emit('set', draft.value),
  cancel() {
    draft.value = null
    emit('trying', props.points)
  },
})

function takeHold(event: PointerEvent): boolean {
  const box = svg.value?.getBoundingClientRect()
  if (!box) return false
  const at = spotOf(event)
  const near = all.value
    .map(([x, y], index) => ({
      index,
      far: Math.hypot((x - at[0]) * box.width, (y - at[1]) * box.height),
    }))
    .sort((a, b) => a.far - b.far)[0]
  const reach = event.pointerType === 'touch' ? 30 : 16
  if (near && near.far < reach) holding = near.index
  else {
    const bounded = (share: number) => Math.min(1, Math.max(0, share))
    const more = added(all.value, [bounded(at[0]), bounded(at[1])])
    if (!more) return false
    draft.value = more.points
    holding = more.index
  }
  chosen.value = holding
  return true
}

function remove(index: number) {
  if (all.value.length <= (props.hues ? 1 : 2) || index < 0) return
  emit(
    'set',
    all.value.filter((_, i) => i !== index),
  )
  chosen.value = -1
}

function twice(event: MouseEvent) {
  const at = spotOf(event)
  const index = all.value.findIndex(
    ([x, y]) => Math.abs(x - at[0]) < 0.06 && Math.abs(y - at[1]) < 0.1,
  )
  remove(index)
}

function nudge(event: KeyboardEvent) {
  const by = arrowWay(event)
  const point = all.value[chosen.value]
  if (event.key === 'Delete' || event.key === 'Backspace') remove(chosen.value)
  else if (by && point) {
    draft.value = moved(all.value, chosen.value, [point[0] + by[0] / 100, point[1] + by[1] / 100])
    emit('trying', draft.value)
  } else if (event.key === ' ' || event.key === 'Enter') {
    chosen.value = (chosen.value + 1) % all.value.length
  } else return
  event.preventDefault()
  event.stopPropagation()
}

/** What the arrow keys did is kept when they are let go. */
function settle() {
  if (!grip.held.value && draft.value) emit('set', draft.value)
}
</script>

<template>
  <svg
    ref="svg"
    class="graph"
    :viewBox="`0 0 ${W} ${H}`"
    preserveAspectRatio="none"
    role="application"
    tabindex="0"
    :aria-label="$t('controls.curveGraph.pointsSpaceNextPointArrows', { label, count: all.length })"
    data-test="curve"
    @pointerdown="grip.down($event)"
    @dblclick="twice"
    @keydown="nudge"
    @keyup="settle"
  >
    <defs>
      <linearGradient id="hues">
        <stop v-for="one in HUES" :key="one.at" :offset="one.at" :stop-color="one.colour" />
      </linearGradient>
    </defs>
    <path
      class="grid"
      :d="`M${W / 4} 0V${H}M${W / 2} 0V${H}M${(W * 3) / 4} 0V${H}M0 ${H / 4}H${W}M0 ${H / 2}H${W}M0 ${(H * 3) / 4}H${W}`"
    />
    <rect v-if="hues" x="0" :y="H - 9" :width="W" height="9" fill="url(#hues)" />
    <path v-else class="rest" :d="`M0 ${H}L${W} 0`" />
    <polyline :points="line" :style="{ stroke: colour }" />
    <g v-for="(point, index) in all" :key="index">
      <path
        class="knob"
        :class="{ chosen: chosen === index }"
        :d="`M${point[0] * W} ${H - point[1] * H - 8}l6.5 6-6.5 11-6.5-11z`"
      />
    </g>
  </svg>
</template>

<style scoped>
.graph {
  width: calc(100% - 16px);
  height: clamp(140px, 19vh, 260px);
  margin: 8px;
  background: #121015;
  border-radius: 8px 8px 2px 8px;
  touch-action: none;
  cursor: crosshair;
  overflow: visible;
}
.grid {
  stroke: #2a2530;
  vector-effect: non-scaling-stroke;
}
.rest {
  stroke: #453c4e;
  stroke-dasharray: 4 4;
  vector-effect: non-scaling-stroke;
}
polyline {
  fill: none;
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
}
.knob {
  fill: #fff;
  stroke: #17141a;
  vector-effect: non-scaling-stroke;
}
.knob.chosen {
  fill: var(--accent);
}
.phone .graph {
  height: calc(100% - 16px);
  min-height: 60px;
}
</style>
