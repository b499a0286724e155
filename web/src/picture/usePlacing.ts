import { computed, onScopeDispose, ref, type Ref } from 'vue'
import { faceMedia, isPictured, type PicturedClip, type Step } from '@/api/types'
import type { Player } from '@/player/usePlayer'
import { useHand } from '@/stores/hand'
import { useLayering } from '@/stores/layering'
import { useLibrary } from '@/stores/library'
import { endOf, startOf, useProject } from '@/stores/project'
import { cellBox } from './cells'
import {
  cornersOf,
  middleOf,
  pictureSize,
  placedOf,
  alongAxes,
  snapToCanvas,
  snapTurn,
  type Guides,
  type Placed,
  type Point,
  type Size,
} from './placing'
import { tickOf } from '@/time'

const NONE: Guides = { x: null, y: null }

/** Handling the picture itself: one finger moves it, two size and turn it, handles do either. */
export function usePlacing(player: Player, scale: Ref<number>) {
  const project = useProject()
  const library = useLibrary()
  const hand = useHand()
  const layering = useLayering()
  const draft = ref<Placed | null>(null)
  const guides = ref<Guides>(NONE)
  const fingers = new Map<number, Point>()
  let handle: 'move' | 'size' | 'turn' = 'move'
  let from: Placed | null = null
  let begun: Point[] = []

  const canvas = computed(() => project.document?.canvas ?? { width: 1080, height: 1920 })
  const clip = computed<PicturedClip | null>(() => {
    const found = hand.one
    if (!found || found.track.hidden || found.track.locked || !isPictured(found.clip)) return null
    const at = tickOf(player.frame.value, project.rate)
    return startOf(found.clip) <= at && at < endOf(found.clip) ? found.clip : null
  })
  const size = computed(() => {
    const one = clip.value
    if (!one) return null
    const extent = layering.extents[one.id ?? '']
    return pictureSize(one, library.byMedia.get(faceMedia(one)), canvas.value, area.value, extent)
  })
  const placed = computed(() => draft.value ?? (clip.value ? placedOf(clip.value) : null))
  /** What a picture is fitted into: the canvas, or its cell of a split screen. */
  const area = computed(() => {
    const cell = clip.value?.cell
    return cell ? cellBox(cell, canvas.value) : { left: 0, top: 0, ...canvas.value }
  })
  const corners = computed(() =>
    placed.value && size.value ? spotsOf(placed.value, size.value) : null,
  )

  function spotsOf(at: Placed, picture: Size): Point[] {
    const { left, top } = area.value
    return cornersOf(at, picture, area.value).map(({ x, y }) => ({ x: x + left, y: y + top }))
  }

  function down(event: PointerEvent, which: 'move' | 'size' | 'turn') {
    if (!placed.value || event.button !== 0) return
    ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
    fingers.set(event.pointerId, spot(event))
    handle = which
    restart()
  }

  function spot(event: PointerEvent): Point {
    return { x: event.clientX / scale.value, y: event.clientY / scale.value }
  }

  function restart() {
    from = placed.value ? { ...placed.value } : null
    begun = [...fingers.values()]
  }

  function move(event: PointerEvent, box: DOMRect) {
    if (!fingers.has(event.pointerId) || !from || !size.value) return
    fingers.set(event.pointerId, spot(event))
    const now = [...fingers.values()]
    draft.value = now.length >= 2 ? pinched(from, now) : handled(from, now, box)
    player.tryOut(stepOf(draft.value))
  }

  function handled(start: Placed, now: Point[], box: DOMRect): Placed {
    const [was, is] = [begun[0], now[0]]
    if (!was || !is) return start
    if (handle === 'move') {
      const by = { x: is.x - was.x, y: is.y - was.y }
      return moved(start, clip.value?.cell ? alongAxes(by, start.turn, 8 / scale.value) : by)
    }
    const corner = { x: box.left / scale.value, y: box.top / scale.value }
    const middle = middleOf(spotsOf(start, size.value ?? canvas.value))
    const centre = { x: middle.x + corner.x, y: middle.y + corner.y }
    if (handle === 'turn') return turned(start, angle(centre, is) - angle(centre, was))
    return sized(start, distance(centre, is) / Math.max(1, distance(centre, was)))
  }

  function pinched(start: Placed, now: Point[]): Placed {
    const [a, b] = [begun[0], begun[1]]
    const [c, d] = [now[0], now[1]]
    if (!a || !b || !c || !d) return start
    const by = { x: (c.x + d.x - a.x - b.x) / 2, y: (c.y + d.y - a.y - b.y) / 2 }
    const grown = sized(start, distance(c, d) / Math.max(1, distance(a, b)))
    return moved(turned(grown, angle(c, d) - angle(a, b)), by)
  }

  function moved(start: Placed, by: Point): Placed {
    const there = { ...start, x: start.x + by.x, y: start.y + by.y }
    const spots = cornersOf(there, size.value ?? canvas.value, area.value)
    const found = snapToCanvas(spots, area.value, 10 / scale.value)
    const { left, top } = area.value
    const { x, y } = found.guides
    guides.value = { x: x === null ? null : x + left, y: y === null ? null : y + top }
    return { ...there, x: round(there.x + found.by.x), y: round(there.y + found.by.y) }
  }

  function sized(start: Placed, factor: number): Placed {
    const bounded = Math.min(20, Math.max(0.02, factor))
    return {
      ...start,
      across: Math.round(start.across * bounded * 1000) / 1000,
      down: Math.round(start.down * bounded * 1000) / 1000,
    }
  }

  function turned(start: Placed, by: number): Placed {
    return { ...start, turn: snapTurn(start.turn + by) }
  }

  function stepOf(to: Placed): Step | null {
    const id = clip.value?.id
    if (!id || !from) return null
    const values: Record<string, unknown> = {}
    if (to.x !== from.x || to.y !== from.y) values['place/position'] = [to.x, to.y]
    if (to.across !== from.across || to.down !== from.down) {
      values['place/size'] = [to.across, to.down]
    }
    if (to.turn !== from.turn) values['place/turn'] = to.turn
    return Object.keys(values).length ? { kind: 'adjust', clips: [id], values } : null
  }

  function up(event: PointerEvent) {
    if (!fingers.delete(event.pointerId)) return
    if (fingers.size) {
      // One finger of two was lifted: what is done so far is the new beginning.
      finish()
      restart()
      return
    }
    finish()
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
    project.edit(step).then((done) => {
      if (draft.value === kept) draft.value = null
      if (!done) player.draw()
    })
  }

  function cancel() {
    fingers.clear()
    draft.value = null
    guides.value = NONE
    player.tryOut(null)
  }

  onScopeDispose(() => fingers.clear())

  return { canvas, area, clip, size, placed, corners, guides, down, move, up, cancel }
}

function distance(a: Point, b: Point): number {
  return Math.hypot(a.x - b.x, a.y - b.y)
}

function angle(from: Point, to: Point): number {
  return (Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI
}

function round(value: number): number {
  return Math.round(value * 10) / 10
}
