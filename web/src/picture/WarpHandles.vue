<script setup lang="ts">
/** Pins, or the points of a grid, on the layer in hand; a tap beside them sets a pin. */
import { computed, ref, watch } from 'vue'
import { client, need } from '@/api/client'
import type { PicturedClip, Step } from '@/api/types'
import { useDraft } from '@/controls/useDraft'
import { useGrip } from '@/controls/useGrip'
import { valueAt } from '@/motion/keys'
import type { Player } from '@/player/usePlayer'
import { useMoving } from '@/stores/moving'
import { useProject } from '@/stores/project'
import type { Frame } from './masks'
import type { Point } from './placing'
import { gridSpots, rounded, withPointsMoved, type Area, type Pair, type Warp } from './warps'

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
  seen: Area | null
}
const bending = ref<Bending>({ points: [], lines: [], pins: [], rest: [], seen: null })
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
      if (turn !== asked) return
      bending.value = found as unknown as Bending
      moving.sheet = { seen: bending.value.seen, aspect: props.aspect }
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
  /** Whether it goes along with the others that are taken. */
  taken: boolean
}
/** How far points that are dragged have come. */
const draft = useDraft<{ ids: string[]; by: Pair }>(() => warp.value)
const dragged = (id: string, [x, y]: Pair): Pair => {
  const [dx, dy] = draft.value?.ids.includes(id) ? draft.value.by : [0, 0]
  return [x + dx, y + dy]
}

/** What can be dragged, where it is at the playhead. */
const knobs = computed<Knob[]>(() => {
  const now = warp.value
  if (now?.kind === 'pins') {
    return (now.pins ?? []).map((pin, index) => {
      // Where a chain carries it is what is shown.
      const told = bending.value.pins[index]
      const own = valueAt(pin.at, props.local) as Pair
      const carried = (now.chain ?? []).indexOf(pin.id ?? '') > 0 && told ? told : own
      return knobOf(pin.id ?? '', carried, true)
    })
  }
  if (now?.kind !== 'grid') return []
  return gridSpots(now, props.aspect, props.local).map((at, index) => knobOf(`${index}`, at, false))
})
function knobOf(id: string, kept: Pair, pin: boolean): Knob {
  const at = dragged(id, kept)
  return { id, at, pin, taken: moving.points.includes(id), ...screen(at) }
}

function spot(event: PointerEvent): Pair | null {
  const box = svg.value?.getBoundingClientRect()
  if (!box) return null
  const { x, y } = props.frame.back({ x: event.clientX - box.left, y: event.clientY - box.top })
  return [x, y]
}

const told = (at: Pair) => at.map((one) => one.toFixed(3)).join(', ')
/** What goes along with a point that is dragged. */
const alongWith = (id: string) => (moving.points.includes(id) ? moving.points : [id])

let from: Pair = [0, 0]
const grip = useGrip<Knob>({
  slop: 2,
  begin(knob, { event }) {
    if (knob.pin) moving.pin = knob.id
    const here = spot(event)
    if (here) from = here
    return Boolean(here)
  },
  tap({ event }, { id }) {
    moving.takePoint(id, event.shiftKey || event.ctrlKey || event.metaKey)
  },
  move({ event }, { id }) {
    const now = spot(event)
    if (!now) return
    draft.value = {
      ids: alongWith(id),
      by: [rounded(now[0] - from[0]), rounded(now[1] - from[1])],
    }
    const step = stepOf()
    if (step) props.player.tryOut(step)
  },
  drop() {
    const step = stepOf()
    props.player.endTrial()
    if (step) project.edit(step)
  },
  cancel() {
    draft.value = null
    props.player.tryOut(null)
  },
})

function stepOf(): Step | null {
  if (!warp.value || !draft.value) return null
  const values = withPointsMoved(warp.value, props.local, draft.value.ids, draft.value.by)
  return { kind: 'adjust', clips: [props.clip.id ?? ''], values }
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
  return p && r ? [rounded(r[0] + at[0] - p[0]), rounded(r[1] + at[1] - p[1])] : at
}

async function addPin(event: PointerEvent) {
  const now = warp.value
  const found = spot(event)
  if (now?.kind !== 'pins' || !found) return
  const at: Pair = [rounded(found[0]), rounded(found[1])]
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
          :class="{ here: knob.taken || knob.id === moving.pin }"
          :d="`M${knob.x} ${knob.y - 11}l8 7-8 15-8-15z`"
        />
        <text class="number" :x="knob.x + 11" :y="knob.y - 6">{{ index + 1 }}</text>
      </template>
      <circle
        v-else
        class="point"
        :class="{ taken: knob.taken }"
        :cx="knob.x"
        :cy="knob.y"
        r="5.5"
      />
      <circle
        class="reach"
        data-fine
        :cx="knob.x"
        :cy="knob.y"
        r="18"
        :data-test="knob.pin ? `pin-${index}` : `grid-${index}`"
        role="button"
        tabindex="0"
        :aria-pressed="knob.taken"
        :aria-label="
          $t('picture.warpHandles.atArrowsMoveIt', {
            pin: knob.pin ? $t('picture.warpHandles.pin') : $t('picture.warpHandles.point'),
            index: index + 1,
            told: told(knob.at),
          })
        "
        @keydown="grip.key($event, knob)"
        @keydown.enter.space.prevent.stop="moving.takePoint(knob.id, $event.shiftKey)"
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
.point.taken {
  fill: var(--accent);
  stroke: #fff;
}
.reach {
  fill: transparent;
  cursor: grab;
}
</style>
