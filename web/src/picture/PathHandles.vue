<script setup lang="ts">
/** Pen paths on the picture: nodes and their handles, moved, added, joined and taken away. */
import { computed, ref } from 'vue'
import { BButton } from 'bootstrap-vue-next'
import IconTrash from '~icons/tabler/trash'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import { useDraft } from '@/controls/useDraft'
import { useGrip } from '@/controls/useGrip'
import type { PathNode } from '@/api/types'
import { useDrawing } from '@/stores/drawing'
import { t } from '@/texts'
import {
  closed,
  extended,
  joined,
  moved,
  nearest,
  nodeAt,
  placeOf,
  split,
  svgPath,
  withValues,
  without,
} from './pen'
import type { Part, Path, Spot } from './pen'
import type { Point } from './placing'

const props = defineProps<{
  path: Path
  width: number
  height: number
  /** From the path's own measure to the screen, and back. */
  to: (point: Point) => Point
  back: (point: Point) => Point
  /** Whether a tap beside it sets another node. */
  drawing: boolean
  name: string
}>()
const emit = defineEmits<{ trying: [path: Path]; set: [path: Path]; drawn: [] }>()

const bench = useDrawing()
const svg = ref<SVGSVGElement | null>(null)
const draft = useDraft<Path>(() => props.path)
const held = ref<Spot | null>(null)
const shown = computed(() => draft.value ?? props.path)
const node = computed(() => nodeAt(shown.value, held.value))

const JOINS = [
  { id: 'corner', name: t('picture.pathHandles.corner') },
  { id: 'smooth', name: t('picture.pathHandles.smooth') },
  { id: 'broken', name: t('picture.pathHandles.broken') },
] as const

const knobs = computed(() =>
  shown.value.flatMap((contour, c) =>
    contour.nodes.map((one, n) => {
      const [x, y] = placeOf(one, 'at')
      const here = held.value?.contour === c && held.value.node === n
      return { spot: { contour: c, node: n }, ...props.to({ x, y }), here, join: one.join }
    }),
  ),
)
const handles = computed(() => {
  const one = node.value
  // While points are set, none of their handles may lie where the next one is wanted.
  if (!one || !held.value || props.drawing) return []
  const [ax, ay] = placeOf(one, 'at')
  const at = props.to({ x: ax, y: ay })
  return (['before', 'after'] as const).map((part) => {
    const [x, y] = placeOf(one, part)
    const end = props.to({ x, y })
    const folded = Math.hypot(end.x - at.x, end.y - at.y) < 6
    // A handle that is folded away waits beside its node, to be pulled out.
    const shownAt = folded ? { x: at.x + (part === 'after' ? 26 : -26), y: at.y } : end
    return { part, at, end: shownAt, folded }
  })
})

function screen(event: PointerEvent): Point {
  const box = svg.value?.getBoundingClientRect()
  return { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) }
}

/** A change that is kept. The next one builds on it, however soon it comes. */
function put(path: Path) {
  draft.value = path
  emit('set', path)
}

let begun: Path = []
const grip = useGrip<{ spot: Spot; part: Part }>({
  begin({ spot, part }) {
    if (part === 'at' && closes(spot)) {
      put(closed(shown.value, spot.contour))
      emit('drawn')
      return false
    }
    held.value = spot
    begun = shown.value
    return true
  },
  move({ event }, { spot, part }) {
    const { x, y } = props.back(screen(event))
    draft.value = moved(begun, spot, part, [rounded(x), rounded(y)])
    emit('trying', draft.value)
  },
  drop: () => draft.value && emit('set', draft.value),
  cancel() {
    draft.value = null
    emit('trying', props.path)
  },
})

/** Whether a tap on a node ends the line that is being drawn, at its beginning. */
function closes(spot: Spot): boolean {
  const contour = shown.value[spot.contour]
  return props.drawing && spot.node === 0 && contour?.closed === false && contour.nodes.length > 2
}

const rounded = (value: number) => Math.round(value * 10000) / 10000

function tapped(event: PointerEvent) {
  const at = screen(event)
  const own = props.back(at)
  if (props.drawing) {
    const path = extended(shown.value, [rounded(own.x), rounded(own.y)])
    const last = path.length - 1
    held.value = { contour: last, node: (path[last]?.nodes.length ?? 1) - 1 }
    put(path)
    return
  }
  held.value = null
}

function addAt(event: PointerEvent) {
  const found = nearest(shown.value, props.back(screen(event)))
  if (!found) return
  held.value = { contour: found.spot.contour, node: found.spot.node + 1 }
  put(split(shown.value, found.spot, found.share))
}

function remove() {
  if (!held.value) return
  put(without(shown.value, held.value))
  held.value = null
}

/** Other values of the node in hand. */
function change(values: Partial<PathNode>) {
  if (held.value) put(withValues(shown.value, held.value, values))
}

function nudge(event: KeyboardEvent) {
  const by = { ArrowLeft: [-2, 0], ArrowRight: [2, 0], ArrowUp: [0, -2], ArrowDown: [0, 2] }[
    event.key
  ]
  if (!held.value || !node.value) return
  if (event.key === 'Delete' || event.key === 'Backspace') remove()
  else if (by) {
    const [x, y] = placeOf(node.value, 'at')
    const at = props.to({ x, y })
    const there = props.back({ x: at.x + (by[0] ?? 0), y: at.y + (by[1] ?? 0) })
    put(moved(shown.value, held.value, 'at', [rounded(there.x), rounded(there.y)]))
  } else return
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <div class="pen" data-test="path-handles">
    <svg
      ref="svg"
      class="sheet"
      :viewBox="`0 0 ${width} ${height}`"
      tabindex="0"
      role="application"
      :aria-label="$t('picture.pathHandles.tapAPointThenMove', { name })"
      @keydown="nudge"
    >
      <rect
        v-if="drawing"
        class="ground"
        :width="width"
        :height="height"
        data-fine
        data-test="pen-ground"
        @pointerdown="tapped"
      />
      <path class="line under" :d="svgPath(shown, to)" />
      <path class="line" :d="svgPath(shown, to)" />
      <path class="reach" :d="svgPath(shown, to)" data-test="path-line" @pointerdown.stop="addAt" />
      <g v-for="handle in handles" :key="handle.part">
        <line
          class="stalk"
          :x1="handle.at.x"
          :y1="handle.at.y"
          :x2="handle.end.x"
          :y2="handle.end.y"
        />
        <circle
          class="touch"
          data-fine
          :cx="handle.end.x"
          :cy="handle.end.y"
          r="18"
          :data-test="`handle-${handle.part}`"
          @pointerdown.stop="held && grip.down($event, { spot: held, part: handle.part })"
        />
        <circle
          class="end"
          :class="{ folded: handle.folded }"
          :cx="handle.end.x"
          :cy="handle.end.y"
          r="5"
        />
      </g>
      <g v-for="knob in knobs" :key="`${knob.spot.contour}-${knob.spot.node}`">
        <circle
          class="touch"
          data-fine
          :cx="knob.x"
          :cy="knob.y"
          r="18"
          data-test="path-node"
          @pointerdown.stop="grip.down($event, { spot: knob.spot, part: 'at' })"
        />
        <path
          class="node"
          :class="{ here: knob.here }"
          :d="
            knob.join === 'smooth'
              ? `M${knob.x - 6} ${knob.y}a6 6 0 1 0 12 0a6 6 0 1 0-12 0`
              : `M${knob.x} ${knob.y - 8}l6 5.5-6 10.5-6-10.5z`
          "
        />
      </g>
    </svg>
    <Teleport v-if="node && bench.bench" :to="bench.bench">
      <div class="bar">
        <ChoiceGroup
          :label="$t('picture.pathHandles.howThePointIsJoined')"
          :choices="JOINS"
          :taken="node.join ?? 'corner'"
          @take="held && put(joined(shown, held, $event))"
        />
        <BButton
          size="sm"
          variant="secondary"
          :title="$t('picture.pathHandles.removeThePoint')"
          :aria-label="$t('picture.pathHandles.removeThePoint')"
          data-test="remove-node"
          @click="remove"
        >
          <IconTrash aria-hidden="true" />
        </BButton>
        <slot name="node" :node="node" :change="change" />
      </div>
    </Teleport>
  </div>
</template>

<style scoped>
.pen,
.sheet {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  touch-action: none;
}
.pen {
  pointer-events: none;
}
.sheet > *,
.sheet g > * {
  pointer-events: auto;
}
.sheet {
  overflow: hidden;
  outline: none;
  pointer-events: none;
}
.sheet:focus-visible {
  outline: 2px solid var(--accent);
  outline-offset: -2px;
}
.ground {
  fill: transparent;
  cursor: crosshair;
}
.line,
.stalk,
.node,
.end {
  pointer-events: none !important;
}
.line {
  fill: none;
  stroke: var(--accent);
  stroke-width: 2;
}
.line.under {
  stroke: rgb(22 22 22 / 60%);
  stroke-width: 4;
}
.reach {
  fill: none;
  stroke: transparent;
  stroke-width: 20;
  pointer-events: stroke !important;
  cursor: copy;
}
.stalk {
  stroke: #fff;
  stroke-width: 1.5;
}
.touch {
  fill: transparent;
  cursor: grab;
}
.node {
  fill: #fff;
  stroke: #161616;
  stroke-width: 1.5;
}
.node.here {
  fill: var(--accent);
}
.end {
  fill: #fff;
  stroke: #161616;
}
.end.folded {
  fill: none;
  stroke: #fff;
  stroke-dasharray: 2 2;
}
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 8px;
  align-items: center;
}
</style>
