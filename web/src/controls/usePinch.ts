import { onScopeDispose } from 'vue'
import { makeEars } from './ears'

export interface Spot {
  x: number
  y: number
}

/** One or two fingers on the same thing: where they were as this began, and where they are. */
export interface Fingers {
  begun: Spot[]
  now: Spot[]
}

export interface Pinching<T> {
  /** Asked as the first finger goes down; false if nothing is to be held there. */
  begin?(what: T): boolean | void
  /** Whether a second finger may come to what one holds, and has moved or not; else it is nobody's. */
  joins(what: T, moved: boolean): boolean
  /** A finger moves, once one has come farther than the slop. */
  move(fingers: Fingers, what: T): void
  /** A finger came or was lifted: what was done so far is where it goes on from. */
  settle?(what: T): void
  /** The last finger was let go: what was done is meant. */
  drop(what: T): void
  /** It was let go where it went down. */
  tap?(at: Spot, what: T): void
  /** Taken away by the system or by Escape: nothing was meant. */
  cancel?(what: T): void
}

const SLOP = 4

/** What `useGrip` is to one finger, for things that two can take: moved by one, sized and turned by two. */
export function usePinch<T = void>(holding: Pinching<T>) {
  const fingers = new Map<number, { begun: Spot; now: Spot }>()
  let held: { what: T } | null = null
  let moved = false
  const listen = makeEars({ move, up, taken, escape: cancel })
  const spotOf = ({ clientX: x, clientY: y }: PointerEvent): Spot => ({ x, y })

  function down(event: PointerEvent, what: T) {
    if (event.pointerType === 'mouse' && event.button !== 0) return
    if (held) join(event)
    else if (holding.begin?.(what) !== false) {
      held = { what }
      moved = false
      add(event)
      listen(true)
    }
  }

  function join(event: PointerEvent) {
    if (!held || fingers.size !== 1 || !holding.joins(held.what, moved)) return
    add(event)
    settle(held.what)
  }

  function add(event: PointerEvent) {
    ;(event.currentTarget as Element | null)?.setPointerCapture?.(event.pointerId)
    fingers.set(event.pointerId, { begun: spotOf(event), now: spotOf(event) })
  }

  function settle(what: T) {
    for (const finger of fingers.values()) finger.begun = finger.now
    holding.settle?.(what)
  }

  function move(event: PointerEvent) {
    const finger = fingers.get(event.pointerId)
    if (!held || !finger) return
    finger.now = spotOf(event)
    const { begun, now } = finger
    moved ||= Math.hypot(now.x - begun.x, now.y - begun.y) >= SLOP
    if (!moved) return
    const all = [...fingers.values()]
    holding.move({ begun: all.map((one) => one.begun), now: all.map((one) => one.now) }, held.what)
  }

  function up(event: PointerEvent) {
    if (!held || !fingers.delete(event.pointerId)) return
    if (fingers.size) return settle(held.what)
    const { what } = held
    release()
    if (moved) holding.drop(what)
    else holding.tap?.(spotOf(event), what)
  }

  function taken(event: PointerEvent) {
    if (fingers.has(event.pointerId)) cancel()
  }

  function cancel() {
    const what = held
    release()
    if (what) holding.cancel?.(what.what)
  }

  function release() {
    held = null
    fingers.clear()
    listen(false)
  }

  onScopeDispose(cancel)
  return { down, cancel }
}
