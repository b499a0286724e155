<script setup lang="ts">
/** Pins, or the points of a grid, on the layer in hand; a tap beside them sets a pin. */
import { computed, ref, watch } from 'vue'
import { client, need } from '@/api/client'
import type { PicturedClip, Step } from '@/api/types'
import { useDraft } from '@/controls/useDraft'
import { useGrip } from '@/controls/useGrip'
import { changedAt, valueAt } from '@/motion/keys'
import type { Player } from '@/player/usePlayer'
import { useMoving } from '@/stores/moving'
import { useProject } from '@/stores/project'
import type { Frame } from './masks'
import type { Point } from './placing'

type Pair = [number, number]
type Warp = NonNullable<PicturedClip['warp']>

const props = defineProps<{
  width: number
  height: number
  player: Player
  clip: PicturedClip
  local: number
  /** Width of the picture for a height of 1. */
  aspect: number
  frame: Frame
}>()
const project = useProject()
const moving = useMoving()
const svg = ref<SVGSVGElement | null>(null)

const warp = computed<Warp | null>(() => props.clip.warp ?? null)

interface Bending {
  points: Pair[]
  lines: Pair[]
  pins: Pair[]
  rest: Pair[]
}
const bending = ref<Bending>({ points: [], lines: [], pins: [], rest: [] })
let asked = 0
watch(
  () => [project.seen, props.player.shown.value, props.clip.id, warp.value?.kind],
  async () => {
    const turn = ++asked
    if (!warp.value || !project.id) return
    try {
      const found = await need(
        client.GET('/api/projects/{id}/revisions/{revision}/bending/{clip}', {
          params: {
            path: { id: project.id, revision: project.seen, clip: props.clip.id ?? '' },
            query: { ...project.look, frame: props.player.shown.value },
          },
        }),
      )
      if (turn === asked) bending.value = found as unknown as Bending
    } catch {
      // Without its mesh the picture itself still tells how it bends.
    }
  },
  { immediate: true },
)

const mesh = computed(() =>
  bending.value.lines
    .map(([a, b]) => {
      const [p, q] = [bending.value.points[a], bending.value.points[b]]
      if (!p || !q) return ''
      const [one, other] = [screen(p), screen(q)]
      return `M${one.x.toFixed(1)} ${one.y.toFixed(1)}L${other.x.toFixed(1)} ${other.y.toFixed(1)}`
    })
    .join(''),
)
const screen = ([x, y]: Pair) => props.frame.to({ x, y })

interface Knob extends Point {
  id: string
  at: Pair
  pin: boolean
}
const draft = useDraft<{ id: string; at: Pair }>(() => warp.value)

/** What can be dragged, where it is at the playhead. */
const knobs = computed<Knob[]>(() => {
  const now = warp.value
  if (now?.kind === 'pins') {
    return (now.pins ?? []).map((pin, index) => {
      // Where a chain carries it is what is shown.
      const told = bending.value.pins[index]
      const own = valueAt(pin.at, props.local) as Pair
      const carried = (now.chain ?? []).indexOf(pin.id ?? '') > 0 && told ? told : own
      const dragged = draft.value
      const at = dragged && dragged.id === pin.id ? dragged.at : carried
      return { id: pin.id ?? '', at, pin: true, ...screen(at) }
    })
  }
  if (now?.kind !== 'grid') return []
  return gridSpots(now).map((at, index) => ({ id: `${index}`, at, pin: false, ...screen(at) }))
})

function gridSpots(now: Extract<Warp, { kind: 'grid' }>): Pair[] {
  const [columns, rows] = [now.columns ?? 3, now.rows ?? 3]
  const offsets = valueAt(now.points, props.local) as Pair[]
  return offsets.map(([dx, dy], index) => {
    const id = `${index}`
    if (draft.value?.id === id) return draft.value.at
    const [column, row] = [index % (columns + 1), Math.floor(index / (columns + 1))]
    return [(column / columns - 0.5) * props.aspect + dx, row / rows - 0.5 + dy]
  })
}

function spot(event: PointerEvent): Pair | null {
  const box = svg.value?.getBoundingClientRect()
  if (!box) return null
  const { x, y } = props.frame.back({ x: event.clientX - box.left, y: event.clientY - box.top })
  return [x, y]
}

const told = (at: Pair) => at.map((one) => one.toFixed(3)).join(', ')
const round = (value: number) => Math.round(value * 10000) / 10000

let from: Pair = [0, 0]
const grip = useGrip<Knob>({
  slop: 2,
  begin(knob, { event }) {
    if (knob.pin) moving.pin = knob.id
    const here = spot(event)
    if (here) from = here
    return Boolean(here)
  },
  move({ event }, { id, at: was }) {
    const now = spot(event)
    if (!now) return
    const at: Pair = [round(was[0] + now[0] - from[0]), round(was[1] + now[1] - from[1])]
    draft.value = { id, at }
    const step = stepOf(id, was, at)
    if (step) props.player.tryOut(step)
  },
  drop(_, { id, at: was }) {
    const step = draft.value && stepOf(id, was, draft.value.at)
    props.player.endTrial()
    if (step) project.edit(step)
  },
  cancel() {
    draft.value = null
    props.player.tryOut(null)
  },
})

function stepOf(id: string, was: Pair, at: Pair): Step | null {
  const now = warp.value
  const clips = [props.clip.id ?? '']
  const by: Pair = [at[0] - was[0], at[1] - was[1]]
  if (now?.kind === 'pins') {
    const pin = now.pins?.find((one) => one.id === id)
    if (!pin) return null
    const [x, y] = valueAt(pin.at, props.local) as Pair
    const value = changedAt(pin.at, props.local, [round(x + by[0]), round(y + by[1])])
    return { kind: 'adjust', clips, values: { [`warp/pins/${id}/at`]: value } }
  }
  if (now?.kind !== 'grid') return null
  const offsets = (valueAt(now.points, props.local) as Pair[]).map(([x, y], index): Pair =>
    index === Number(id) ? [round(x + by[0]), round(y + by[1])] : [x, y],
  )
  const value = changedAt(now.points, props.local, offsets)
  return { kind: 'adjust', clips, values: { 'warp/points': value } }
}

/** Where a spot of the bent picture is when nothing bends it: with the nearest point of the mesh. */
function atRest(at: Pair): Pair {
  const { points, rest } = bending.value
  let best = 0
  points.forEach(([x, y], index) => {
    const [bx, by] = points[best] as Pair
    if (Math.hypot(x - at[0], y - at[1]) < Math.hypot(bx - at[0], by - at[1])) best = index
  })
  const [p, r] = [points[best], rest[best]]
  return p && r ? [round(r[0] + at[0] - p[0]), round(r[1] + at[1] - p[1])] : at
}

async function addPin(event: PointerEvent) {
  const now = warp.value
  const found = spot(event)
  if (now?.kind !== 'pins' || !found) return
  const at: Pair = [round(found[0]), round(found[1])]
  if (Math.abs(at[0]) > props.aspect / 2 || Math.abs(at[1]) > 0.5) return
  const { made } = await project.make({
    kind: 'add_item',
    clips: [props.clip.id ?? ''],
    list: 'warp/pins',
    item: { rest: atRest(at), at },
  })
  moving.pin = made[0] ?? ''
}
</script>

<template>
  <svg
    ref="svg"
    class="warp"
    :viewBox="`0 0 ${width} ${height}`"
    role="group"
    :aria-label="$t('picture.warpHandles.pointsThatBendThePicture')"
    data-test="warp-handles"
  >
    <rect
      class="ground"
      :class="{ pins: warp?.kind === 'pins' }"
      :width="width"
      :height="height"
      data-fine
      data-test="warp-ground"
      @pointerdown="addPin"
    />
    <path class="mesh under" :d="mesh" :class="{ away: draft }" />
    <path class="mesh" :d="mesh" :class="{ away: draft }" data-test="warp-mesh" />
    <g v-for="(knob, index) in knobs" :key="knob.id">
      <template v-if="knob.pin">
        <path
          class="pin"
          :class="{ here: knob.id === moving.pin }"
          :d="`M${knob.x} ${knob.y - 11}l8 7-8 15-8-15z`"
        />
        <text class="number" :x="knob.x + 11" :y="knob.y - 6">{{ index + 1 }}</text>
      </template>
      <circle v-else class="point" :cx="knob.x" :cy="knob.y" r="5.5" />
      <circle
        class="reach"
        data-fine
        :cx="knob.x"
        :cy="knob.y"
        r="18"
        :data-test="knob.pin ? `pin-${index}` : `grid-${index}`"
        role="button"
        tabindex="0"
        :aria-label="
          $t('picture.warpHandles.atArrowsMoveIt', {
            pin: knob.pin ? $t('picture.warpHandles.pin') : $t('picture.warpHandles.point'),
            index: index + 1,
            told: told(knob.at),
          })
        "
        @keydown="grip.key($event, knob)"
        @pointerdown.stop="grip.down($event, knob)"
      />
    </g>
  </svg>
</template>

<style scoped>
.warp {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  overflow: hidden;
  touch-action: none;
}
.ground {
  fill: transparent;
}
.ground.pins {
  cursor: crosshair;
}
.mesh {
  fill: none;
  stroke: #fff;
  stroke-width: 0.75;
  opacity: 0.55;
  pointer-events: none;
}
.mesh.under {
  stroke: #161616;
  stroke-width: 1.75;
  opacity: 0.3;
}
.mesh.away {
  opacity: 0.12;
}
.pin {
  fill: #fff;
  stroke: #17141a;
  stroke-width: 1.5;
  pointer-events: none;
}
.pin.here {
  fill: var(--accent);
}
.number {
  fill: #fff;
  stroke: #161616;
  stroke-width: 3;
  paint-order: stroke;
  font-size: 12px;
  font-weight: 700;
  pointer-events: none;
}
.point {
  fill: #fff;
  stroke: var(--accent);
  stroke-width: 2;
  pointer-events: none;
}
.reach {
  fill: transparent;
  cursor: grab;
}
</style>
