import { computed, ref, watch, type Ref } from 'vue'
import { usePinch, type Spot } from '@/controls/usePinch'
import { middleOf } from './placing'
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

  let from: View = FITS
  const pinch = usePinch<Element>({
    joins: () => true,
    begin: () => void (from = view.value),
    settle: () => (from = view.value),
    move({ begun, now }, ground) {
      const box = ground.getBoundingClientRect()
      const [was, is] = [middleOf(begun), middleOf(now)]
      const middle = { x: box.left + box.width / 2, y: box.top + box.height / 2 }
      const at = { x: was.x - middle.x, y: was.y - middle.y }
      const closer = closerBy(from, apart(now) / apart(begun), at)
      view.value = kept({ ...closer, x: closer.x + is.x - was.x, y: closer.y + is.y - was.y })
    },
    drop: () => (from = view.value),
  })
  const down = (event: PointerEvent) => pinch.down(event, event.currentTarget as Element)

  return { view, size, moving, zoomBy, fit, wheel, down }
}

/** Pixels between two fingers; of one, always the same. */
function apart([a, b]: Spot[]): number {
  return a && b ? Math.max(1, Math.hypot(a.x - b.x, a.y - b.y)) : 1
}
