import { computed, ref, type Ref } from 'vue'
import { isPictured, type PicturedClip, type Step } from '@/api/types'
import { usePinch } from '@/controls/usePinch'
import { SNAP_REACH, useFelt, useSnapping } from '@/controls/useSnapping'
import { changedAt } from '@/motion/keys'
import type { Player } from '@/player/usePlayer'
import { useHand } from '@/stores/hand'
import { useLayering } from '@/stores/layering'
import { startOf, useProject } from '@/stores/project'
import { cellBox } from './cells'
import {
  alongAxes,
  cornersOf,
  distance,
  drawnTo,
  type Guides,
  type Lines,
  linesOfCanvas,
  linesOfLayer,
  type Map6,
  mapped,
  nineSpots,
  pivotMoved,
  type Placed,
  placedOf,
  type Point,
  type Size,
  snapLean,
  snapTo,
  snapTurn,
  STILL,
  unmappedShift,
  withPivot,
} from './placing'
import { useShown } from './useShown'

const NONE: Guides = { x: null, y: null }

/** `ground`: beside what is in hand, where only two fingers together do something. */
export type Handle = 'ground' | 'move' | 'size' | 'width' | 'height' | 'turn' | 'lean' | 'pivot'

/** What the picture is handled on: where it is on the screen, and who is told of taps. */
interface Surface {
  box(): DOMRect | null
  tapped(at: Point): void
}

/** Handling the picture itself: one finger moves it, two size and turn it, handles do either. */
export function usePlacing(player: Player, scale: Ref<number>, surface?: Surface) {
  const project = useProject()
  const hand = useHand()
  const layering = useLayering()
  const draft = ref<Placed | null>(null)
  const guides = ref<Guides>(NONE)
  const snapping = useSnapping()
  const reach = () => (snapping.active.value ? SNAP_REACH / scale.value : 0)
  useFelt(() => guides.value.x ?? guides.value.y)
  let handle: Handle = 'move'
  let from: Placed | null = null
  let lines: Lines = { x: [], y: [] }

  const { canvas, at, isSeen, sizeOf, mapOf, cornersAt } = useShown(player)
  const clip = computed<PicturedClip | null>(() => {
    const found = hand.one
    if (!found || found.track.hidden || found.track.locked || !isPictured(found.clip)) return null
    return isSeen(found.clip) ? found.clip : null
  })
  /** The playhead from the start of the clip. */
  const local = computed(() => (clip.value ? at.value - startOf(clip.value) : 0))
  const size = computed(() => (clip.value ? sizeOf(clip.value) : null))
  const placed = computed(
    () => draft.value ?? (clip.value ? placedOf(clip.value, local.value) : null),
  )
  /** What a picture is fitted into: the canvas, or its cell of a split screen. */
  const area = computed(() => {
    const cell = clip.value?.cell
    return cell ? cellBox(cell, canvas.value) : { left: 0, top: 0, ...canvas.value }
  })
  const shown = computed(() => mapOf(clip.value))
  /** Where its path lies: with what it follows, but not as it sways or turns by itself. */
  const led = computed<Map6>(() => layering.led[clip.value?.id ?? ''] ?? STILL)
  const corners = computed(() =>
    placed.value && size.value ? spotsOf(placed.value, size.value) : null,
  )
  /** The point it turns about, on the canvas. */
  const pivot = computed(() => (placed.value ? pivotOf(placed.value) : null))

  function spotsOf(where: Placed, picture: Size): Point[] {
    const { left, top } = area.value
    return cornersOf(where, picture, area.value).map(({ x, y }) =>
      mapped(shown.value, { x: x + left, y: y + top }),
    )
  }

  function pivotOf(where: Placed): Point {
    const { left, top } = area.value
    const { x, y } = ownPivot(where)
    return mapped(shown.value, { x: left + x, y: top + y })
  }

  /** The pivot on the area that the layer is placed in. */
  function ownPivot(where: Placed): Point {
    const { width, height } = area.value
    return { x: width / 2 + where.x + where.pivot.x, y: height / 2 + where.y + where.pivot.y }
  }

  /** Edges, thirds and middles of the canvas, and those of the other layers that are seen. */
  function linesAround(): Lines {
    const { left, top } = area.value
    const own = linesOfCanvas(area.value)
    const found: Lines = { x: own.x.map((x) => x + left), y: own.y.map((y) => y + top) }
    for (const track of project.tracks) {
      if (track.kind === 'sound' || track.hidden) continue
      for (const one of track.clips) {
        if (!isPictured(one) || !isSeen(one) || one.id === clip.value?.id || one.cell) continue
        const corners = cornersAt(one)
        if (!corners.length) continue
        const other = linesOfLayer(corners)
        found.x.push(...other.x)
        found.y.push(...other.y)
      }
    }
    return found
  }

  const pinch = usePinch<Handle>({
    begin(which) {
      if (!placed.value && which !== 'ground') return false
      handle = which
      lines = linesAround()
      from = placed.value && { ...placed.value }
    },
    // Two that come down together size and turn, even if the first one met a knob of a small picture.
    joins: (which, moved) => which === 'move' || which === 'ground' || !moved,
    settle: () => (from = placed.value && { ...placed.value }),
    move({ begun, now }) {
      const box = surface?.box()
      if (!from || !size.value || !box) return
      const [was, is] = [begun.map(scaled), now.map(scaled)]
      if (is.length < 2 && handle === 'ground') return
      if (is.length >= 2) handle = 'move'
      draft.value = is.length >= 2 ? pinched(from, was, is) : handled(from, was, is, box)
      player.tryOut(stepOf(draft.value))
    },
    drop: finish,
    tap: (at) => surface?.tapped(at),
    cancel() {
      draft.value = null
      guides.value = NONE
      player.tryOut(null)
    },
  })

  const scaled = ({ x, y }: Point): Point => ({ x: x / scale.value, y: y / scale.value })

  function handled(start: Placed, begun: Point[], now: Point[], box: DOMRect): Placed {
    const [was, is] = [begun[0], now[0]]
    if (!was || !is) return start
    const by = unmappedShift(shown.value, { x: is.x - was.x, y: is.y - was.y })
    if (handle === 'move') {
      return moved(start, clip.value?.cell ? alongAxes(by, start.turn, reach()) : by)
    }
    if (handle === 'pivot') {
      const spots = size.value ? nineSpots(cornersOf(start, size.value, area.value)) : []
      const { pivot, ...rest } = pivotMoved(start, drawnTo(ownPivot(start), by, spots, reach()))
      return { ...rest, pivot: { x: round(pivot.x), y: round(pivot.y) } }
    }
    if (handle === 'lean') return leaned(start, by)
    const corner = { x: box.left / scale.value, y: box.top / scale.value }
    const middle = pivotOf(start)
    const centre = { x: middle.x + corner.x, y: middle.y + corner.y }
    if (handle === 'turn') return turned(start, angle(centre, is) - angle(centre, was))
    const factor = distance(centre, is) / Math.max(1, distance(centre, was))
    return sized(start, handle === 'height' ? 1 : factor, handle === 'width' ? 1 : factor)
  }

  function pinched(start: Placed, begun: Point[], now: Point[]): Placed {
    const [a, b] = [begun[0], begun[1]]
    const [c, d] = [now[0], now[1]]
    if (!a || !b || !c || !d) return start
    const by = unmappedShift(shown.value, {
      x: (c.x + d.x - a.x - b.x) / 2,
      y: (c.y + d.y - a.y - b.y) / 2,
    })
    const factor = distance(c, d) / Math.max(1, distance(a, b))
    return moved(turned(sized(start, factor, factor), angle(c, d) - angle(a, b)), by)
  }

  function moved(start: Placed, by: Point): Placed {
    const there = { ...start, x: start.x + by.x, y: start.y + by.y }
    const found = snapTo(spotsOf(there, size.value ?? canvas.value), lines, reach())
    guides.value = found.guides
    const back = unmappedShift(shown.value, found.by)
    return { ...there, x: round(there.x + back.x), y: round(there.y + back.y) }
  }

  function sized(start: Placed, wide: number, high: number): Placed {
    const bounded = (factor: number) => Math.min(20, Math.max(0.02, factor))
    return {
      ...start,
      across: Math.round(start.across * bounded(wide) * 1000) / 1000,
      down: Math.round(start.down * bounded(high) * 1000) / 1000,
    }
  }

  /** The top edge is taken along its own direction; its distance from the pivot is the lever. */
  function leaned(start: Placed, by: Point): Placed {
    const spots = cornersOf({ ...start, turn: 0, lean: 0 }, size.value ?? canvas.value, area.value)
    const level = area.value.height / 2 + start.y + start.pivot.y
    const lever = level - Math.min(...spots.map(({ y }) => y))
    const turn = (start.turn * Math.PI) / 180
    const along = by.x * Math.cos(turn) + by.y * Math.sin(turn)
    const slope = Math.tan((start.lean * Math.PI) / 180) + along / Math.max(lever, 1)
    return { ...start, lean: snapLean((Math.atan(slope) * 180) / Math.PI, within(start)) }
  }

  /** Degrees by which the farthest corner moves no farther than things snap. */
  function within(start: Placed): number {
    const middle = pivotOf(start)
    const spots = spotsOf(start, size.value ?? canvas.value)
    const far = Math.max(1, ...spots.map((spot) => distance(middle, spot)))
    return Math.min(2, (reach() / far) * (180 / Math.PI))
  }

  function turned(start: Placed, by: number): Placed {
    return { ...start, turn: snapTurn(start.turn + by, within(start)) }
  }

  /** Where a property has keys, what is done sets one at the playhead. */
  function stepOf(to: Placed): Step | null {
    const one = clip.value
    if (!one?.id) return null
    const was = placedOf(one, local.value)
    if (handle === 'pivot') {
      const values = withPivot(one, [to.pivot.x, to.pivot.y], local.value)
      return { kind: 'adjust', clips: [one.id], values }
    }
    const values: Record<string, unknown> = {}
    const put = (path: string, prop: unknown, value: unknown) =>
      (values[path] = changedAt(prop, local.value, value))
    if (to.x !== was.x || to.y !== was.y) {
      put('place/position', one.place?.position, [to.x, to.y])
    }
    if (to.across !== was.across || to.down !== was.down) {
      put('place/size', one.place?.size, [to.across, to.down])
    }
    if (to.turn !== was.turn) put('place/turn', one.place?.turn, to.turn)
    if (to.lean !== was.lean) put('place/lean', one.place?.lean, to.lean)
    return Object.keys(values).length ? { kind: 'adjust', clips: [one.id], values } : null
  }

  function finish() {
    guides.value = NONE
    const step = draft.value ? stepOf(draft.value) : null
    const kept = draft.value
    if (!step) {
      draft.value = null
      player.endTrial()
      return
    }
    player.endTrial()
    project.edit(step).then(() => {
      if (draft.value === kept) draft.value = null
    })
  }

  return {
    canvas,
    area,
    clip,
    local,
    size,
    placed,
    shown,
    led,
    corners,
    pivot,
    guides,
    down: pinch.down,
  }
}

function angle(from: Point, to: Point): number {
  return (Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI
}

function round(value: number): number {
  return Math.round(value * 10) / 10
}
