import { computed, type ComputedRef, type Ref } from 'vue'
import { useGrip } from '@/controls/useGrip'
import type { Point } from '@/motion/speed'
import type { RampPoints } from './useRampPoints'
import { PAD, type RampScale, type RampView } from './useRampScale'

/** Pixels from a point to the ends of its handles. */
const ARM = 26

/** A point that is seen, and where. */
export interface Spot extends Point {
  index: number
  x: number
  y: number
}

interface Held {
  index: number
  /** Which handle: to later or to earlier; 0: the point itself. */
  way: number
}

interface Doing {
  locked(): boolean
  trying(points: Point[] | null): void
  set(points: Point[]): void
  /** Ticks of a frame, by which keys move points. */
  frame(): number
}

/** Points and slopes of a ramp under a finger or the arrow keys. */
export function useRampGrip(
  ramp: RampPoints,
  scale: RampScale,
  view: Ref<RampView>,
  spots: ComputedRef<Spot[]>,
  doing: Doing,
) {
  const { draft, points, chosen, knot } = ramp
  const ticksOf = (pixels: number) => scale.toTick(PAD + pixels) - scale.toTick(PAD)

  /** Handles of the point in hand: as steep as the source runs there. */
  const handles = computed(() => {
    const at = spots.value.find((one) => one.index === chosen.value)
    if (view.value !== 'source' || !at || !knot.value) return []
    const ahead = scale.toY(scale.at(at.at) + knot.value.speed * ticksOf(ARM))
    const long = Math.hypot(ARM, at.y - ahead)
    const [x, up] = [(ARM / long) * ARM, ((at.y - ahead) / long) * ARM]
    return [1, -1].map((way) => ({ way, at, x: at.x + way * x, y: at.y - way * up }))
  })

  const grip = useGrip<Held>({
    begin(held, { event }) {
      if (doing.locked()) return false
      if (!held.way) held.index = nearest(event, held.index)
      chosen.value = held.index
      scale.hold(true)
      return true
    },
    move({ event }, held) {
      draft.value = dragged(held, scale.inGraph(event))
      doing.trying(draft.value)
    },
    drop() {
      scale.hold(false)
      if (draft.value) doing.set(draft.value)
    },
    tap: () => void scale.hold(false),
    cancel() {
      scale.hold(false)
      draft.value = null
      doing.trying(null)
    },
  })

  /** Of points that stand close together the one nearest to the finger. */
  function nearest(event: PointerEvent, otherwise: number): number {
    const { x, y } = scale.inGraph(event)
    const far = (one: Spot) => Math.hypot(one.x - x, one.y - y)
    const [first] = [...spots.value].sort((a, b) => far(a) - far(b))
    return first?.index ?? otherwise
  }

  function dragged({ index, way }: Held, { x, y }: { x: number; y: number }): Point[] {
    if (view.value === 'speed') {
      return ramp.withPoint(index, { at: scale.toTick(x), speed: scale.yToSpeed(y) })
    }
    if (!way) return ramp.withSource(index, { at: scale.toTick(x), source: scale.fromY(y) })
    const one = ramp.kept.value[index]
    if (!one) return points.value
    const ahead = Math.max(Math.abs(x - scale.toX(one.at)), 2) * way
    const rise = scale.fromY(y) - scale.at(one.at)
    return ramp.withSlope(index, rise / ticksOf(ahead))
  }

  function key(event: KeyboardEvent, index: number) {
    const up = { ArrowUp: 1, ArrowDown: -1 }[event.key]
    const across = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
    const one = points.value[index]
    if (!one || doing.locked() || (up === undefined && across === undefined)) return
    event.preventDefault()
    event.stopPropagation()
    chosen.value = index
    const frame = doing.frame() * (event.shiftKey ? 10 : 1)
    const at = one.at + (across ?? 0) * frame
    if (view.value === 'source') {
      doing.set(ramp.withSource(index, { at, source: scale.at(one.at) + (up ?? 0) * frame }))
    } else doing.set(ramp.withPoint(index, up ? { speed: one.speed + up * 0.1 } : { at }))
  }

  return { handles, down: grip.down, key }
}
