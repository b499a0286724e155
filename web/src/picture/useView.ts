import { computed, ref, watch, type Ref } from 'vue'
import { closerBy, keptInside, type View } from './view'

const FITS: View = { zoom: 1, x: 0, y: 0 }

/** Looking closer at the picture: how much larger it is shown, and how far it was moved. */
export function useView(
  room: { width: Ref<number>; height: Ref<number> },
  fitted: Ref<{ width: number; height: number }>,
) {
  const view = ref<View>({ ...FITS })
  /** Whether a finger moves the picture itself instead of what is on it. */
  const moving = ref(false)
  const fingers = new Map<number, { x: number; y: number }>()

  const size = computed(() => ({
    width: Math.round(fitted.value.width * view.value.zoom),
    height: Math.round(fitted.value.height * view.value.zoom),
  }))
  const kept = (next: View) =>
    keptInside(next, { width: room.width.value, height: room.height.value }, fitted.value)

  watch(
    () => [room.width.value, room.height.value, fitted.value.width],
    () => (view.value = kept(view.value)),
  )

  /** Larger or smaller about a point, counted from the middle of the room. */
  function zoomBy(factor: number, at = { x: 0, y: 0 }) {
    view.value = kept(closerBy(view.value, factor, at))
    if (view.value.zoom === 1) moving.value = false
  }

  function fit() {
    view.value = { ...FITS }
    moving.value = false
  }

  function wheel(event: WheelEvent) {
    if (!event.ctrlKey && view.value.zoom === 1) return
    event.preventDefault()
    if (!event.ctrlKey) {
      pan(-event.deltaX, -event.deltaY)
      return
    }
    const box = (event.currentTarget as Element).getBoundingClientRect()
    const at = {
      x: event.clientX - box.left - box.width / 2,
      y: event.clientY - box.top - box.height / 2,
    }
    zoomBy(Math.exp(-event.deltaY / 300), at)
  }

  function pan(x: number, y: number) {
    view.value = kept({ ...view.value, x: view.value.x + x, y: view.value.y + y })
  }

  function down(event: PointerEvent) {
    ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
    fingers.set(event.pointerId, { x: event.clientX, y: event.clientY })
  }

  function move(event: PointerEvent) {
    const before = fingers.get(event.pointerId)
    if (!before) return
    const now = { x: event.clientX, y: event.clientY }
    const other = [...fingers].find(([id]) => id !== event.pointerId)?.[1]
    fingers.set(event.pointerId, now)
    if (!other) {
      pan(now.x - before.x, now.y - before.y)
      return
    }
    const box = (event.currentTarget as Element).getBoundingClientRect()
    const apart = (a: { x: number; y: number }) => Math.hypot(a.x - other.x, a.y - other.y)
    const at = {
      x: (now.x + other.x) / 2 - box.left - box.width / 2,
      y: (now.y + other.y) / 2 - box.top - box.height / 2,
    }
    zoomBy(apart(now) / Math.max(1, apart(before)), at)
    pan((now.x - before.x) / 2, (now.y - before.y) / 2)
  }

  const up = (event: PointerEvent) => fingers.delete(event.pointerId)

  return { view, size, moving, zoomBy, fit, wheel, down, move, up }
}
