<script setup lang="ts">
/** The path of a layer's position: its points and handles, and a dot for each frame. */
import { computed } from 'vue'
import type { PicturedClip } from '@/api/types'
import { useDraft } from '@/controls/useDraft'
import { useGrip } from '@/controls/useGrip'
import { keyShape } from '@/motion/easing'
import { isKeyed, valueAt, type Key, type Keyed } from '@/motion/keys'
import { keyedProps } from '@/motion/props'
import type { Vector } from '@/motion/spatial'
import type { Player } from '@/player/usePlayer'
import { useMoving } from '@/stores/moving'
import { startOf, useProject } from '@/stores/project'
import { frameOf, frameTicks } from '@/time'
import { mapped, unmappedShift, type Point } from './placing'
import type { usePlacing } from './usePlacing'

const props = defineProps<{
  width: number
  height: number
  player: Player
  placing: ReturnType<typeof usePlacing>
}>()
const project = useProject()
const moving = useMoving()

const PATH = 'place/position'
const scale = computed(() => props.width / props.placing.canvas.value.width)
const clip = computed<PicturedClip | null>(() => props.placing.clip.value)
const position = computed(() => clip.value?.place?.position)
const kept = computed(() => (isKeyed(position.value) ? position.value : null))
const draft = useDraft<Keyed>(() => kept.value)
const prop = computed(() => draft.value ?? kept.value)

/** From a position to the screen: the path is that of the pivot. */
function toScreen([x, y]: Vector): Point {
  const { left, top, width, height } = props.placing.area.value
  const pivot = props.placing.placed.value?.pivot ?? { x: 0, y: 0 }
  const spot = mapped(props.placing.led.value, {
    x: left + width / 2 + x + pivot.x,
    y: top + height / 2 + y + pivot.y,
  })
  return { x: spot.x * scale.value, y: spot.y * scale.value }
}
const plus = (a: Vector, b: Vector | undefined): Vector => [
  a[0] + (b?.[0] ?? 0),
  a[1] + (b?.[1] ?? 0),
]

/** The way on the screen, frame by frame. */
const MOST_FRAMES = 1200
const frames = computed(() => {
  const moving = prop.value ?? position.value
  const ats = keyedProps(moving).flatMap((one) => one.prop.keys.map((key) => key.at))
  if (ats.length < 2) return []
  const [first, last] = [Math.min(...ats), Math.max(...ats)]
  const step = frameTicks(project.rate)
  const every = Math.max(1, Math.ceil((last - first) / step / MOST_FRAMES))
  const found: Point[] = []
  for (let at = first; at <= last; at += step * every) {
    found.push(toScreen(valueAt(moving, at) as Vector))
  }
  return found
})
/** Even steps of frames, so many that dots are not all one line. */
const ROOM = 6
const dots = computed(() => {
  const all = frames.value
  const length = all.reduce((sum, { x, y }, i) => {
    const before = all[i - 1]
    return before ? sum + Math.hypot(x - before.x, y - before.y) : 0
  }, 0)
  const every = Math.max(1, Math.round((ROOM * all.length) / Math.max(length, 1)))
  return all.filter((_, index) => index % every === 0)
})
const line = computed(() =>
  frames.value.map(({ x, y }) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' '),
)

const named = (at: number) => ({ clip: clip.value?.id ?? '', path: PATH, at })
const points = computed(() => {
  const keys = prop.value?.keys ?? []
  return keys.map((key, index) => ({
    key,
    index,
    taken: moving.holds(named(key.at)),
    here: key.at === props.placing.local.value,
    ...toScreen(key.value as Vector),
  }))
})
/** Pixels around where the layer is that move the layer, and no key that it has elsewhere in time. */
const OWN = 22
const layerAt = computed(() =>
  prop.value ? toScreen(valueAt(prop.value, props.placing.local.value) as Vector) : null,
)
const isFree = ({ x, y, here }: { x: number; y: number; here: boolean }) =>
  !here && (!layerAt.value || Math.hypot(x - layerAt.value.x, y - layerAt.value.y) > OWN)
const arms = computed(() =>
  points.value.flatMap((point) => {
    if (!point.taken && !point.here) return []
    const keys = prop.value?.keys ?? []
    return (['before', 'after'] as const).flatMap((side) => {
      const other = keys[point.index + (side === 'after' ? 1 : -1)]
      if (!other) return []
      const own = point.key[side]
      const set = own && (own[0] || own[1])
      const value = point.key.value as Vector
      const to = other.value as Vector
      const shown = handleOf(own, value, to)
      return [{ point, side, set: Boolean(set), ...toScreen(plus(value, shown)) }]
    })
  }),
)

interface Held {
  index: number
  side: 'before' | 'after' | null
}
const round = (value: number) => Math.round(value * 10) / 10

const grip = useGrip<Held>({
  begin({ index, side }, { event }) {
    const key = kept.value?.keys[index]
    if (key && !side) moving.take(named(key.at), event.shiftKey)
  },
  move({ dx, dy }, held) {
    const before = kept.value
    if (!before || !clip.value?.id) return
    const far = { x: dx / scale.value, y: dy / scale.value }
    const by = unmappedShift(props.placing.led.value, far)
    draft.value = {
      keys: before.keys.map((key, at) => (at === held.index ? dragged(held, key, by) : key)),
    }
    props.player.tryOut(step(draft.value))
  },
  drop() {
    if (!draft.value) return
    props.player.endTrial()
    project.edit(step(draft.value))
  },
  tap(_, { index, side }) {
    const key = kept.value?.keys[index]
    if (!side && key && clip.value) {
      props.player.seek(frameOf(startOf(clip.value) + key.at, project.rate))
    }
  },
  cancel() {
    draft.value = null
    props.player.tryOut(null)
  },
})

function dragged({ side, index }: Held, key: Key, by: Point): Key {
  if (!side) {
    const [x, y] = key.value as Vector
    return { ...key, value: [round(x + by.x), round(y + by.y)] }
  }
  const other = side === 'after' ? 'before' : 'after'
  const value = key.value as Vector
  const neighbour = kept.value?.keys[index + (side === 'after' ? 1 : -1)]?.value as
    Vector | undefined
  if (!neighbour) return key
  const [fromX, fromY] = handleOf(key[side], value, neighbour)
  const now: Vector = [round(fromX + by.x), round(fromY + by.y)]
  const [backX, backY] = key[other] ?? [0, 0]
  const length = Math.hypot(backX, backY)
  const mine = Math.hypot(now[0], now[1]) || 1
  // Linked handles stay in one line; one that is not used yet stays so.
  const turned: Vector =
    moving.linked && length
      ? [round((-now[0] / mine) * length), round((-now[1] / mine) * length)]
      : [backX, backY]
  return { ...key, [side]: now, [other]: turned }
}

/** A handle; of a straight stretch where it is offered, on its line. */
function handleOf(own: Vector | undefined, value: Vector, neighbour: Vector): Vector {
  if (own && (own[0] || own[1])) return own
  return [(neighbour[0] - value[0]) / 3, (neighbour[1] - value[1]) / 3]
}

const step = (to: Keyed) => ({
  kind: 'adjust' as const,
  clips: [clip.value?.id ?? ''],
  values: { [PATH]: to },
})
</script>

<template>
  <svg
    v-if="frames.length > 1"
    class="way"
    :viewBox="`0 0 ${width} ${height}`"
    role="group"
    :aria-label="$t('picture.motionPath.pathOfTheLayer')"
    data-test="motion-path"
  >
    <polyline class="line under" :points="line" />
    <polyline class="line" :points="line" />
    <circle v-for="(dot, index) in dots" :key="index" class="dot" :cx="dot.x" :cy="dot.y" r="2" />
    <template v-for="arm in arms" :key="`${arm.point.index}${arm.side}`">
      <line class="arm" :x1="arm.point.x" :y1="arm.point.y" :x2="arm.x" :y2="arm.y" />
      <circle class="knob" :class="{ unset: !arm.set }" :cx="arm.x" :cy="arm.y" r="5.5" />
      <circle
        class="reach"
        data-fine
        :cx="arm.x"
        :cy="arm.y"
        r="16"
        :data-test="`path-${arm.point.index}-${arm.side}`"
        role="button"
        tabindex="0"
        :aria-label="
          $t('picture.motionPath.handleKeyOfThePath', {
            side: arm.side,
            index: arm.point.index + 1,
          })
        "
        @keydown="grip.key($event, { index: arm.point.index, side: arm.side })"
        @pointerdown.stop="grip.down($event, { index: arm.point.index, side: arm.side })"
      />
    </template>
    <g v-for="one in points" :key="one.key.at">
      <path
        class="key"
        :class="{ taken: one.taken }"
        :d="keyShape(one.key.ease)"
        :transform="`translate(${one.x - 7} ${one.y - 9})`"
      />
      <circle
        v-if="isFree(one)"
        class="reach"
        data-fine
        :cx="one.x"
        :cy="one.y"
        r="16"
        :data-test="`path-key-${one.index}`"
        role="button"
        tabindex="0"
        :aria-label="
          $t('picture.motionPath.keyOfThePathAt', {
            index: one.index + 1,
            list: (one.key.value as Vector).map(Math.round).join(', '),
          })
        "
        @keydown="grip.key($event, { index: one.index, side: null })"
        @pointerdown.stop="grip.down($event, { index: one.index, side: null })"
      />
    </g>
  </svg>
</template>

<style scoped>
.way {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  overflow: visible;
  pointer-events: none;
  touch-action: none;
}
.line {
  fill: none;
  stroke: #fff;
  stroke-width: 1.5;
}
.line.under {
  stroke: #161616;
  stroke-width: 3.5;
  opacity: 0.55;
}
.dot {
  fill: #fff;
  stroke: #161616;
  stroke-width: 0.75;
}
.arm {
  stroke: #fff;
}
.knob {
  fill: #1f1b23;
  stroke: #cdb8e6;
  stroke-width: 2;
}
.knob.unset {
  fill: none;
  stroke-dasharray: 3 2;
}
.key {
  fill: #fff;
  stroke: #17141a;
}
.key.taken {
  fill: var(--accent);
}
.reach {
  fill: transparent;
  pointer-events: all;
  cursor: grab;
}
</style>
