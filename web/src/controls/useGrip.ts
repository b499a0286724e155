import { onScopeDispose, shallowReadonly, shallowRef } from 'vue'

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
  /** The pointer moves, once it has come farther than the slop. */
  move(pull: Pull, what: T): void
  /** It was let go after it had moved: what was done is meant. */
  drop(pull: Pull, what: T): void
  /** It was let go where it went down. */
  tap?(pull: Pull, what: T): void
  /** Taken away by the system, by Escape or by the end of the page: nothing was meant. */
  cancel?(what: T): void
  /** Pixels that a pointer may wander and still be a tap; 0: the press itself moves. */
  slop?: number
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
  let moved = false

  function down(event: PointerEvent, what: T) {
    if (held.value || event.button !== 0) return
    from = { x: event.clientX, y: event.clientY }
    if (holding.begin?.(what, pullOf(event)) === false) return
    ;(event.currentTarget as Element | null)?.setPointerCapture?.(event.pointerId)
    pointer = event.pointerId
    moved = false
    held.value = { what }
    listen(true)
    if (!slop) move(event)
  }

  function move(event: PointerEvent) {
    if (!held.value || event.pointerId !== pointer) return
    const pull = pullOf(event)
    if (!moved && Math.hypot(pull.dx, pull.dy) < slop) return
    moved = true
    holding.move(pull, held.value.what)
  }

  function up(event: PointerEvent) {
    if (event.pointerId !== pointer) return
    const what = release()
    if (!what) return
    if (moved) holding.drop(pullOf(event), what.what)
    else holding.tap?.(pullOf(event), what.what)
  }

  function taken(event: PointerEvent) {
    if (event.pointerId === pointer) cancel()
  }

  function escape(event: KeyboardEvent) {
    if (event.key !== 'Escape') return
    event.preventDefault()
    event.stopPropagation()
    cancel()
  }

  function cancel() {
    const what = release()
    if (what) holding.cancel?.(what.what)
  }

  function release() {
    const what = held.value
    held.value = null
    pointer = -1
    listen(false)
    return what
  }

  // On the window: what was pressed may be drawn anew, or away, while it is held.
  let ears: AbortController | null = null
  function listen(on: boolean) {
    ears?.abort()
    if (!on) return
    ears = new AbortController()
    const { signal } = ears
    window.addEventListener('pointermove', move, { signal })
    window.addEventListener('pointerup', up, { signal })
    window.addEventListener('pointercancel', taken, { signal })
    window.addEventListener('keydown', escape, { signal, capture: true })
  }

  function pullOf(event: PointerEvent): Pull {
    const { clientX: x, clientY: y } = event
    return { x, y, dx: x - from.x, dy: y - from.y, event }
  }

  onScopeDispose(cancel)
  return { down, cancel, held: shallowReadonly(held) }
}
