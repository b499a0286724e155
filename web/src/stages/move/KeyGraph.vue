<script setup lang="ts">
/** One property over time: keys and handles to be dragged; by value, or by speed. */
import { computed, ref } from 'vue'
import { TICKS_PER_SECOND } from '@/api/types'
import { useGrip } from '@/controls/useGrip'
import { keyShape, nameOfEase } from '@/motion/easing'
import type { Keyed } from '@/motion/keys'
import { useScreen } from '@/player/inject'
import type { Properties } from '@/inhand/useProperties'
import { useMoving } from '@/stores/moving'
import { startOf, useProject } from '@/stores/project'
import { t } from '@/texts'
import { frameOf, frameTicks, lengthLabel, tickOf } from '@/time'
import { heightOf, withHandle, withKeyMoved, withSpeedHandle, type Side } from './graph'
import StretchBracket from './StretchBracket.vue'
import { useGraph } from './useGraph'
import { useStretch } from './useStretch'
import { useKeys } from '@/inhand/useKeys'

const props = defineProps<{ layer: Properties; path: string; step: number; unit: string }>()
const project = useProject()
const moving = useMoving()
const keys = useKeys()
const { player } = useScreen()

const frame = computed(() => frameTicks(project.rate))
const svg = ref<SVGSVGElement | null>(null)
const {
  LEFT,
  PAD,
  width,
  height,
  clip,
  draft,
  kept,
  prop,
  axes,
  axis,
  bySpeed,
  frozen,
  range,
  curve,
  other,
  toX,
  toY,
  xToTick,
  yToValue,
  line,
  levels,
  seconds,
  playhead,
  named,
  inHand,
  spots,
  handles,
  closeUp,
  seen,
} = useGraph(props, svg, goTo)

function spot(event: PointerEvent) {
  const box = svg.value?.getBoundingClientRect()
  return { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) }
}

interface Held {
  index: number
  side: Side | null
}
/** Whether all keys in hand go along. */
let many = false
const grip = useGrip<Held>({
  begin({ index, side }, { event }) {
    const key = prop.value?.keys[index]
    if (props.layer.locked.value || !key) return false
    const more = event.shiftKey || event.ctrlKey || event.metaKey
    if (!side && (more || !inHand(key.at))) moving.take(named(key.at), more)
    many = !side && moving.keys.length > 1 && inHand(key.at)
    frozen.value = { ...range.value }
    return true
  },
  move({ event }, held) {
    const before = kept.value
    if (!before) return
    if (many) {
      player.tryOut(keys.shiftStep(tickAt(event) - (before.keys[held.index]?.at ?? 0)))
      return
    }
    draft.value = dragged(held, before, event)
    player.tryOut(props.layer.step({ [props.path]: draft.value }))
  },
  drop({ event }, { index, side }) {
    frozen.value = null
    const key = kept.value?.keys[index]
    const tick = tickAt(event)
    if (many) keys.shift(tick - (key?.at ?? 0))
    else if (draft.value) keep(draft.value, side ? [] : [tick, key?.at ?? tick])
  },
  tap: () => (frozen.value = null),
  cancel: letGo,
})

function letGo() {
  noStretch()
  frozen.value = null
  draft.value = null
  player.tryOut(null)
}

/** Keep a change; a key that was moved stays in hand, where it is or where it was. */
async function keep(changed: Keyed, ats: number[]) {
  if (ats.length) moving.takeAll(ats.map(named))
  const done = await props.layer.setWhole({ [props.path]: changed })
  if (done && ats[0] !== undefined) moving.takeAll([named(ats[0])])
}

function tickAt(event: PointerEvent): number {
  return Math.round(xToTick(spot(event).x) / frame.value) * frame.value
}

const { bracket, tryStretched, stretch, noStretch } = useStretch(props, clip, kept, draft)

function dragged({ index, side }: Held, before: Keyed, event: PointerEvent): Keyed {
  const at = spot(event)
  const level = yToValue(at.y)
  if (side) {
    const to: [number, number] = [xToTick(at.x), level]
    return bySpeed.value
      ? withSpeedHandle(before, axis.value, index, side, to, moving.linked, TICKS_PER_SECOND)
      : withHandle(before, axis.value, index, side, to, moving.linked)
  }
  const value = bySpeed.value ? null : Math.round(level / props.step) * props.step
  const tick = tickAt(event)
  return withKeyMoved(before, index, axis.value, tick, value && Number(value.toFixed(4)))
}

/** A tap beside the keys moves the playhead there. */
function goTo(tick: number) {
  if (!clip.value) return
  moving.release()
  player.seek(frameOf(startOf(clip.value) + Math.max(0, tick), project.rate))
}
/** What stays where it is while one comes closer: a key in hand, else the playhead. */
const around = computed(() => {
  const held = prop.value?.keys.find((key) => inHand(key.at))
  const playhead = tickOf(player.frame.value, project.rate) - (clip.value?.start ?? 0)
  return held?.at ?? Math.min(Math.max(playhead, 0), clip.value?.length ?? 0)
})
defineExpose({ closeUp, around })

function press(event: KeyboardEvent, index: number) {
  const key = kept.value?.keys[index]
  if (!key || !kept.value) return
  const across = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
  const up = { ArrowUp: 1, ArrowDown: -1 }[event.key]
  if (event.key === 'Enter' || event.key === ' ') moving.take(named(key.at), event.shiftKey)
  else if (event.key === 'Delete' || event.key === 'Backspace') {
    if (!inHand(key.at)) moving.take(named(key.at))
    keys.remove()
  } else if (across) {
    if (!inHand(key.at)) moving.take(named(key.at))
    keys.shift(across * frame.value * (event.shiftKey ? 10 : 1))
  } else if (up && axes.value.length) {
    const value = heightOf(kept.value, axis.value, index) + up * props.step
    props.layer.setWhole({
      [props.path]: withKeyMoved(kept.value, index, axis.value, key.at, Number(value.toFixed(4))),
    })
  } else return
  event.preventDefault()
  event.stopPropagation()
}

function told(index: number): string {
  const key = prop.value?.keys[index]
  if (!key || !prop.value) return ''
  const value = axes.value.length ? `${heightOf(prop.value, axis.value, index)} ${props.unit}` : ''
  return t('move.keyGraph.atThen', {
    value,
    length: lengthLabel(key.at),
    kind: nameOfEase(key.ease).toLowerCase(),
  })
}
const scale = (value: number) => `${Number(value.toFixed(2))}`
</script>

<template>
  <svg
    ref="svg"
    class="graph"
    role="group"
    :aria-label="bySpeed ? $t('move.keyGraph.speedOverTime') : $t('move.keyGraph.valueOverTime')"
    data-test="key-graph"
    @wheel="closeUp.wheel"
  >
    <rect class="ground" width="100%" height="100%" rx="10" @pointerdown="closeUp.down" />
    <template v-if="width > 60 && prop">
      <g v-for="level in levels" :key="`v${level}`">
        <line :x1="LEFT" :x2="width - PAD" :y1="toY(level)" :y2="toY(level)" class="grid" />
        <text :x="LEFT - 6" :y="toY(level) + 4" class="scale">{{ scale(level) }}</text>
      </g>
      <g v-for="at in seconds" :key="`t${at}`">
        <line
          :x1="toX(at * TICKS_PER_SECOND)"
          :x2="toX(at * TICKS_PER_SECOND)"
          y1="0"
          :y2="height"
          class="grid"
        />
        <text :x="toX(at * TICKS_PER_SECOND) + 4" :y="height - 4" class="scale time">
          {{ scale(at) }} s
        </text>
      </g>
      <rect
        v-if="clip && toX(clip.length) < width - PAD - 1"
        class="beyond"
        :x="toX(clip.length)"
        y="0"
        :width="width - toX(clip.length)"
        :height="height"
      />
      <line
        v-if="playhead !== null"
        :x1="playhead"
        :x2="playhead"
        y1="0"
        :y2="height"
        class="now"
      />
      <polyline v-if="other.length" :points="line(other)" class="curve other" />
      <polyline :points="line(curve)" class="curve" data-test="graph-curve" />
      <template
        v-for="one in handles.filter((end) => seen(end.x))"
        :key="`${one.index}${one.side}`"
      >
        <line
          v-if="one.from"
          class="arm"
          :x1="one.from.x"
          :y1="one.from.y"
          :x2="one.x"
          :y2="one.y"
        />
        <circle class="knob" :cx="one.x" :cy="one.y" r="5.5" />
        <circle
          class="reach"
          :cx="one.x"
          :cy="one.y"
          r="15"
          :data-test="`handle-${one.index}-${one.side}`"
          @pointerdown.stop="grip.down($event, { index: one.index, side: one.side })"
        />
      </template>
      <StretchBracket
        v-if="bracket"
        :from="toX(bracket.low)"
        :to="toX(bracket.high)"
        :bottom="height"
        :frame="toX(frame) - toX(0)"
        @trying="tryStretched"
        @set="stretch"
        @cancel="letGo"
      />
      <g v-for="one in spots.filter((spot) => seen(spot.x))" :key="one.key.at">
        <path
          class="key"
          :class="{ taken: one.taken }"
          :d="keyShape(one.key.ease)"
          :transform="`translate(${one.x - 7} ${one.y - 9})`"
        />
        <circle
          class="reach"
          :cx="one.x"
          :cy="one.y"
          r="15"
          tabindex="0"
          role="slider"
          :aria-label="$t('move.keyGraph.keyOf', { index: one.index + 1, count: spots.length })"
          :aria-valuenow="one.index + 1"
          :aria-valuetext="told(one.index)"
          :data-test="`graph-key-${one.index}`"
          @pointerdown.stop="grip.down($event, { index: one.index, side: null })"
          @keydown="press($event, one.index)"
        />
      </g>
    </template>
  </svg>
</template>

<style scoped>
.graph {
  display: block;
  width: 100%;
  height: 100%;
  touch-action: none;
}
.ground {
  fill: var(--rail);
}
.beyond {
  fill: #0006;
  pointer-events: none;
}
.grid {
  stroke: #2e2834;
  pointer-events: none;
}
.scale {
  fill: var(--quiet);
  font-size: 11px;
  text-anchor: end;
  pointer-events: none;
}
.scale.time {
  text-anchor: start;
}
.now {
  stroke: var(--text);
  opacity: 0.6;
  pointer-events: none;
}
.curve {
  fill: none;
  stroke: #cdb8e6;
  stroke-width: 2.5;
  stroke-linejoin: round;
  pointer-events: none;
}
.curve.other {
  stroke: #6f6478;
  stroke-width: 1.5;
}
.arm {
  stroke: #8f7ea3;
  pointer-events: none;
}
.knob {
  fill: #1f1b23;
  stroke: #cdb8e6;
  stroke-width: 2;
  pointer-events: none;
}
.key {
  fill: #fff;
  stroke: #17141a;
  pointer-events: none;
}
.key.taken {
  fill: var(--accent);
}
.reach {
  fill: transparent;
  cursor: grab;
}
@media (pointer: coarse) {
  .reach {
    r: 22px;
  }
}
</style>
