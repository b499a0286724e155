<script setup lang="ts">
/** The speed of a clip as a curve: speed over time, or source time over time; one function. */
import { BButton } from 'bootstrap-vue-next'
import { computed, ref, watch } from 'vue'
import type { PacedClip } from '@/api/types'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import { useDraft } from '@/controls/useDraft'
import { useGrip } from '@/controls/useGrip'
import { useScreen } from '@/player/inject'
import { startOf, useProject } from '@/stores/project'
import { insidePoints, pointsOf, sourceOffset, speedAt } from '@/timeline/speed'
import { lengthAfter, RAMPS, shapePoints, speedFor, type Point } from './pace'
import { frameOf, frameTicks, lengthLabel, tickOf } from '@/time'

const props = defineProps<{ clip: PacedClip; keep: 'content' | 'length'; locked: boolean }>()
const emit = defineEmits<{ set: [points: Point[], soft: boolean] }>()
const project = useProject()
const { player } = useScreen()

const WIDTH = 320
const HEIGHT = 130
const PAD = 14
const FASTEST = 8

const view = ref<'speed' | 'source'>('speed')
const VIEWS = [
  { id: 'speed', name: 'Speed', help: 'Speed over time' },
  { id: 'source', name: 'Source time', help: 'Which moment of the source is shown when' },
] as const
const soft = computed(() => props.clip.speed?.soft ?? true)
const draft = useDraft<Point[]>(() => props.clip)
const chosen = ref(-1)

const kept = computed(() => insidePoints(pointsOf(props.clip.speed), soft.value, props.clip.length))
const points = computed(() => draft.value ?? kept.value)
watch(
  () => props.clip.id,
  () => (chosen.value = -1),
)

const offsets = computed(() => {
  const all = Array.from({ length: 65 }, (_, i) => at((i / 64) * props.clip.length))
  return { low: Math.min(0, ...all), high: Math.max(1, ...all) }
})
function at(tick: number): number {
  return sourceOffset(points.value, soft.value, tick)
}

/** Height of a speed: even steps for doublings, so that 0.25 and 4 are equally easy to reach. */
function speedToY(speed: number): number {
  const bent = Math.sign(speed) * Math.log2(1 + Math.abs(speed))
  const most = Math.log2(1 + FASTEST)
  const low = backwards.value ? -most : 0
  return HEIGHT - PAD - ((bent - low) / (most - low)) * (HEIGHT - 2 * PAD)
}
function yToSpeed(y: number): number {
  const most = Math.log2(1 + FASTEST)
  const low = backwards.value ? -most : 0
  const bent = ((HEIGHT - PAD - y) / (HEIGHT - 2 * PAD)) * (most - low) + low
  const speed = Math.sign(bent) * (2 ** Math.abs(bent) - 1)
  const step = Math.abs(speed) < 1 ? 0.05 : 0.1
  return Math.round(Math.min(FASTEST, Math.max(-FASTEST, speed)) / step) * step
}
const backwards = computed(() => points.value.some((point) => point.speed < 0))

function sourceToY(offset: number): number {
  const { low, high } = offsets.value
  return HEIGHT - PAD - ((offset - low) / (high - low)) * (HEIGHT - 2 * PAD)
}
function yToSource(y: number): number {
  const { low, high } = offsets.value
  return low + ((HEIGHT - PAD - y) / (HEIGHT - 2 * PAD)) * (high - low)
}
const toX = (tick: number) => PAD + (tick / props.clip.length) * (WIDTH - 2 * PAD)
const toTick = (x: number) => Math.round(((x - PAD) / (WIDTH - 2 * PAD)) * props.clip.length)

function y(tick: number): number {
  if (view.value === 'source') return sourceToY(at(tick))
  return speedToY(speedAt(points.value, soft.value, tick))
}
const curve = computed(() =>
  Array.from({ length: 97 }, (_, i) => {
    const tick = (i / 96) * props.clip.length
    return `${toX(tick).toFixed(1)},${y(tick).toFixed(1)}`
  }).join(' '),
)
const lines = computed(() =>
  view.value === 'speed'
    ? [0, 0.5, 1, 2, 4, 8].map((speed) => ({ speed, y: speedToY(speed) }))
    : [],
)
const playhead = computed(() => {
  const local = tickOf(player.shown.value, project.rate) - startOf(props.clip)
  return local >= 0 && local <= props.clip.length ? toX(local) : null
})
const told = computed(() => {
  const point = points.value[chosen.value]
  const length =
    props.keep === 'content' ? lengthAfter(props.clip, points.value) : props.clip.length
  const after = length === null ? 'turns round: the length stays' : lengthLabel(length)
  return `${point ? `${point.speed.toFixed(2)} × here · ` : ''}${lengthLabel(props.clip.length)} → ${after}`
})

const svg = ref<SVGSVGElement | null>(null)
const grip = useGrip<number>({
  begin(index) {
    if (props.locked) return false
    chosen.value = index
    return true
  },
  move({ event }, index) {
    draft.value = dragged(index, spot(event))
    const frame = Math.max(frameOf(startOf(props.clip), project.rate), player.shown.value)
    const points = draft.value
    const clip = props.clip.id ?? ''
    player.tryOut({ kind: 'ramp', clip, points, soft: soft.value, keep: 'length' }, frame)
  },
  drop: () => draft.value && set(draft.value),
  cancel() {
    draft.value = null
    player.tryOut(null)
  },
})

function spot(event: PointerEvent): { x: number; y: number } {
  const box = svg.value?.getBoundingClientRect()
  if (!box) return { x: 0, y: 0 }
  return {
    x: ((event.clientX - box.left) / box.width) * WIDTH,
    y: ((event.clientY - box.top) / box.height) * HEIGHT,
  }
}

/** The points with one of them where a finger is. */
function dragged(index: number, { x, y: height }: { x: number; y: number }): Point[] {
  const all = points.value.map((point) => ({ ...point }))
  const point = all[index]
  if (!point) return all
  const [before, after] = [all[index - 1], all[index + 1]]
  const least = frameTicks(project.rate)
  if (before && after) {
    point.at = Math.min(after.at - least, Math.max(before.at + least, toTick(x)))
  }
  point.speed =
    view.value === 'speed' ? yToSpeed(height) : speedFor(all, index, yToSource(height), soft.value)
  return all
}

function set(all: Point[], isSoft = soft.value) {
  player.endTrial()
  emit('set', all, isSoft)
}

function add() {
  const local = tickOf(player.shown.value, project.rate) - startOf(props.clip)
  const inside = local > 0 && local < props.clip.length
  const tick = inside ? local : Math.round(props.clip.length / 2)
  if (points.value.some((point) => Math.abs(point.at - tick) < frameTicks(project.rate))) return
  const speed = speedAt(points.value, soft.value, tick)
  const all = [...points.value, { at: tick, speed }].sort((a, b) => a.at - b.at)
  chosen.value = all.findIndex((point) => point.at === tick)
  set(all)
}

function remove() {
  const all = points.value.filter((_, index) => index !== chosen.value)
  chosen.value = -1
  set(all)
}

function key(event: KeyboardEvent, index: number) {
  const by = { ArrowUp: 0.1, ArrowDown: -0.1 }[event.key]
  if (by === undefined) return
  event.preventDefault()
  event.stopPropagation()
  chosen.value = index
  set(
    points.value.map((p, i) =>
      i === index ? { ...p, speed: Math.round((p.speed + by) * 100) / 100 } : p,
    ),
  )
}

const canRemove = computed(() => chosen.value > 0 && chosen.value < points.value.length - 1)
</script>

<template>
  <div class="ramp">
    <div class="line">
      <ChoiceGroup label="View" :choices="VIEWS" :taken="view" @take="view = $event" />
      <span class="small" role="status">{{ told }}</span>
    </div>
    <svg
      ref="svg"
      :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
      role="group"
      aria-label="Speed curve"
      data-test="ramp"
    >
      <rect :width="WIDTH" :height="HEIGHT" rx="8" class="ground" />
      <g v-for="line in lines" :key="line.speed">
        <line
          :x1="PAD"
          :x2="WIDTH - PAD"
          :y1="line.y"
          :y2="line.y"
          class="grid"
          :class="{ one: line.speed === 1 }"
        />
        <text :x="WIDTH - 2" :y="line.y + 3" class="scale">{{ line.speed }}</text>
      </g>
      <line
        v-if="playhead !== null"
        :x1="playhead"
        :x2="playhead"
        y1="0"
        :y2="HEIGHT"
        class="now"
      />
      <polyline :points="curve" class="curve" />
      <g v-for="(point, index) in points" :key="index">
        <path
          class="knob"
          :class="{ chosen: index === chosen }"
          :d="`M${toX(point.at)} ${y(point.at) - 8}l6 5-6 11-6-11z`"
        />
        <circle
          class="reach"
          :cx="toX(point.at)"
          :cy="y(point.at)"
          r="16"
          tabindex="0"
          role="slider"
          :aria-label="`Speed ${index + 1} of ${points.length}`"
          :aria-valuenow="Number(point.speed.toFixed(2))"
          :aria-valuetext="`${point.speed.toFixed(2)} times at ${lengthLabel(point.at)}`"
          :data-test="`ramp-point-${index}`"
          @pointerdown.stop="grip.down($event, index)"
          @keydown="key($event, index)"
        />
      </g>
    </svg>
    <div class="line">
      <BButton variant="secondary" :disabled="locked" data-test="ramp-add" @click="add"
        >Add a point</BButton
      >
      <BButton variant="secondary" :disabled="locked || !canRemove" @click="remove"
        >Remove it</BButton
      >
      <BButton
        variant="secondary"
        :disabled="locked"
        :aria-pressed="soft"
        title="Speeds ease from point to point, or change evenly"
        @click="set(points, !soft)"
      >
        {{ soft ? 'Soft' : 'Straight' }}
      </BButton>
    </div>
    <div class="line">
      <BButton
        v-for="one in RAMPS"
        :key="one.id"
        variant="secondary"
        :disabled="locked"
        :data-test="`ramp-${one.id}`"
        @click="set(shapePoints(one.shape, clip.length))"
      >
        {{ one.name }}
      </BButton>
    </div>
  </div>
</template>

<style scoped>
.ramp {
  display: grid;
  gap: 6px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
.line .btn {
  padding: 2px 10px;
}
svg {
  width: 100%;
  touch-action: none;
}
.ground {
  fill: var(--rail);
}
.grid {
  stroke: #2e2834;
}
.grid.one {
  stroke: #5b5263;
}
.scale {
  fill: var(--quiet);
  font-size: 9px;
  text-anchor: end;
}
.now {
  stroke: var(--text);
  opacity: 0.5;
}
.curve {
  fill: none;
  stroke: #cdb8e6;
  stroke-width: 2.5;
  stroke-linejoin: round;
}
.knob {
  fill: #fff;
  stroke: #17141a;
  pointer-events: none;
}
.knob.chosen {
  fill: var(--accent);
}
.reach {
  fill: transparent;
  cursor: grab;
}
</style>
