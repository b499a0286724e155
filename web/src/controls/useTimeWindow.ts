import { computed, ref } from 'vue'
import { usePinch, type Fingers } from './usePinch'

export interface Stretch {
  low: number
  high: number
}

/** Where on the screen a stretch of time is drawn: its left edge and its width in pixels. */
interface Room {
  left: number
  width: number
}

/** The closest look shows this share of all. */
const CLOSEST = 1 / 64

/** A stretch of a length within another one, as near as it can be to where it was wanted. */
export function fitted(wanted: Stretch, whole: Stretch): Stretch {
  const all = whole.high - whole.low
  const long = Math.min(all, Math.max(all * CLOSEST, wanted.high - wanted.low))
  const low = Math.min(Math.max(wanted.low, whole.low), whole.high - long)
  return { low, high: low + long }
}

/** A stretch seen `factor` times as close; what is at `around` stays there. */
export function zoomed({ low, high }: Stretch, factor: number, around: number): Stretch {
  return { low: around - (around - low) / factor, high: around + (high - around) / factor }
}

/** The stretch that has the same moments under fingers that have moved. */
export function pulled(from: Stretch, { begun, now }: Fingers, { left, width }: Room): Stretch {
  const perPixel = (from.high - from.low) / width
  const under = (x: number) => from.low + (x - left) * perPixel
  const [a, b] = begun
  const [c, d] = now
  if (!a || !c) return from
  if (!b || !d || Math.abs(d.x - c.x) < 8) {
    const by = (a.x - c.x) * perPixel
    return { low: from.low + by, high: from.high + by }
  }
  const scale = (under(b.x) - under(a.x)) / (d.x - c.x)
  const low = under(a.x) - (c.x - left) * scale
  return { low, high: low + width * scale }
}

/** The stretch of time that a graph shows: all of it, or closer; pulled by a finger, zoomed by two. */
export function useTimeWindow(
  whole: () => Stretch,
  room: () => Room,
  tap: (x: number) => void = () => {},
) {
  const closer = ref<Stretch | null>(null)
  const shown = computed(() => (closer.value ? fitted(closer.value, whole()) : whole()))
  const close = computed(() => {
    const [all, now] = [whole(), shown.value]
    return (all.high - all.low) / (now.high - now.low)
  })
  let from = shown.value

  function show(wanted: Stretch) {
    const found = fitted(wanted, whole())
    const all = whole()
    closer.value = found.high - found.low < (all.high - all.low) * 0.999 ? found : null
  }

  const middle = () => (shown.value.low + shown.value.high) / 2
  const zoom = (factor: number, around = middle()) => show(zoomed(shown.value, factor, around))

  /** As close, with a moment in the middle. */
  function follow(at: number) {
    const by = at - middle()
    show({ low: shown.value.low + by, high: shown.value.high + by })
  }

  function wheel(event: WheelEvent) {
    const { left, width } = room()
    const perPixel = (shown.value.high - shown.value.low) / width
    if (event.ctrlKey || event.metaKey) {
      event.preventDefault()
      zoom(Math.exp(-event.deltaY / 200), shown.value.low + (event.clientX - left) * perPixel)
    } else if (closer.value && (event.deltaX || event.shiftKey)) {
      event.preventDefault()
      const by = (event.deltaX || event.deltaY) * perPixel
      show({ low: shown.value.low + by, high: shown.value.high + by })
    }
  }

  /** What fingers pull from here on is meant from what is shown now. */
  const hold = () => void (from = shown.value)
  const pull = (fingers: Fingers) => show(pulled(from, fingers, room()))

  const { down } = usePinch({
    begin: hold,
    joins: () => true,
    settle: hold,
    move: pull,
    drop: () => {},
    tap: ({ x }) => tap(x),
  })

  return { shown, close, zoom, follow, wheel, down, hold, pull }
}

export type TimeWindow = ReturnType<typeof useTimeWindow>
