/** What is listened for while something is held. */
export interface Heard {
  move: (event: PointerEvent) => void
  up: (event: PointerEvent) => void
  /** The system took the pointer away. */
  taken: (event: PointerEvent) => void
  /** Escape was pressed; it goes no further. */
  escape: () => void
}

/**
 * Ears on the window, to be turned on while something is held: what was pressed may be drawn anew,
 * or away, in the meantime.
 */
export function makeEars(heard: Heard): (on: boolean) => void {
  let ears: AbortController | null = null

  function escape(event: KeyboardEvent) {
    if (event.key !== 'Escape') return
    event.preventDefault()
    event.stopPropagation()
    heard.escape()
  }

  return (on) => {
    ears?.abort()
    if (!on) return
    ears = new AbortController()
    const { signal } = ears
    window.addEventListener('pointermove', heard.move, { signal })
    window.addEventListener('pointerup', heard.up, { signal })
    window.addEventListener('pointercancel', heard.taken, { signal })
    window.addEventListener('keydown', escape, { signal, capture: true })
  }
}
