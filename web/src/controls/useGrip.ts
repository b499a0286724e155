import { onScopeDispose, shallowReadonly, shallowRef } from 'vue'
import { arrowWay } from './arrows'
import { makeEars } from './ears'

/** Where a held pointer is, and how far it has come from where it went down. */
export interface Pull {
  x: number
  y: number
  dx: number
  dy: number
  event: PointerEvent
}

export interface Holding<T> {
  /** Asked as a pointer goes down; false if nothing is to be held there. */
  begin?(what: T, pull: Pull): boolean | void
  /** It is lifted: it has come farther than the slop, or rested long enough. */
  lift?(pull: Pull, what: T): void
  /** The pointer moves, once lifted. */
  move(pull: Pull, what: T): void
  /** It was let go after it had been lifted: what was done is meant. */
  drop(pull: Pull, what: T): void
  /** It was let go where it went down. */
  tap?(pull: Pull, what: T): void
  /** Taken away by the system, by Escape or by the end of the page: nothing was meant. */
  cancel?(what: T): void
  /** Pixels that a pointer may wander and still be a tap; 0: the press itself moves. */
  slop?: number
  /** Milliseconds that a finger has to rest to lift; one that moves sooner scrolls the page. */
  rest?(what: T): number
}

const SLOP = 4

/**
 * Press, drag, let go; for every handle there is. One pointer holds at a time: a second finger or a
 * palm neither drops nor steals what is held. Only letting go commits.
 */
export function useGrip<T = void>(holding: Holding<T>) {
  const slop = holding.slop ?? SLOP
  const held = shallowRef<{ what: T } | null>(null)
  let pointer = -1
  let from = { x: 0, y: 0 }
  let lifted = false
  let resting: ReturnType<typeof setTimeout> | null = null
  const listen = makeEars({ move, up, taken, escape: cancel })

  function down(event: PointerEvent, what: T) {
    if (held.value || event.button !== 0) return
    from = { x: event.clientX, y: event.clientY }
    if (holding.begin?.(what, pullOf(event)) === false) return
    const rest = event.pointerType === 'touch' ? holding.rest?.(what) : 0
    // A finger that may yet scroll the page is not taken from it.
    if (!rest) (event.currentTarget as Element | null)?.setPointerCapture?.(event.pointerId)
    pointer = event.pointerId
    lifted = false
    held.value = { what }
    listen(true)
    if (rest) resting = setTimeout(() => lift(event), rest)
    if (!slop) move(event)
  }

  /** An arrow key pulls what has the focus by a pixel of the screen, with Shift by ten. */
  function key(event: KeyboardEvent, what: T) {
    const way = arrowWay(event)
    if (!way || held.value || event.altKey || event.ctrlKey || event.metaKey) return
    event.preventDefault()
    event.stopPropagation()
    const box = (event.currentTarget as Element).getBoundingClientRect()
    from = { x: box.left + box.width / 2, y: box.top + box.height / 2 }
    const far = event.shiftKey ? 10 : 1
    const at = (across: number, up: number) =>
      pullOf(new PointerEvent('pointermove', { clientX: from.x + across, clientY: from.y - up }))
    if (holding.begin?.(what, at(0, 0)) === false) return
    const pull = at(way[0] * far, way[1] * far)
    holding.move(pull, what)
    holding.drop(pull, what)
  }

  function lift(event: PointerEvent) {
    if (!held.value) return
    lifted = true
    holding.lift?.(pullOf(event), held.value.what)
  }

  function move(event: PointerEvent) {
    if (!held.value || event.pointerId !== pointer) return
    const pull = pullOf(event)
    if (!lifted) {
      if (Math.hypot(pull.dx, pull.dy) < slop) return
      if (resting !== null) return cancel()
      lift(event)
    }
    holding.move(pull, held.value.what)
  }

  function up(event: PointerEvent) {
    if (event.pointerId !== pointer) return
    const what = release()
    if (!what) return
    if (lifted) holding.drop(pullOf(event), what.what)
    else holding.tap?.(pullOf(event), what.what)
  }

  function taken(event: PointerEvent) {
    if (event.pointerId === pointer) cancel()
  }

  function cancel() {
    const what = release()
    if (what) holding.cancel?.(what.what)
  }

  function release() {
    const what = held.value
    held.value = null
    pointer = -1
    if (resting !== null) clearTimeout(resting)
    resting = null
    listen(false)
    return what
  }

  function pullOf(event: PointerEvent): Pull {
    const { clientX: x, clientY: y } = event
    return { x, y, dx: x - from.x, dy: y - from.y, event }
  }

  onScopeDispose(cancel)
  return {
    down,
    key,
    cancel,
    held: shallowReadonly(held),
    isLifted: () => held.value !== null && lifted,
  }
}
