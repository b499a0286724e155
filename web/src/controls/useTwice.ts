/** Milliseconds, and pixels, between two taps that belong together. */
const SOON = 350
const NEAR = 24

/** Two taps on the same spot, by finger, pen or mouse; for `pointerup`. */
export function useTwice(run: (event: PointerEvent) => void) {
  let last = { at: -Infinity, x: 0, y: 0 }
  return (event: PointerEvent) => {
    const { clientX: x, clientY: y, timeStamp: at } = event
    const again = at - last.at < SOON && Math.hypot(x - last.x, y - last.y) < NEAR
    last = again ? { at: -Infinity, x, y } : { at, x, y }
    if (again) run(event)
  }
}
