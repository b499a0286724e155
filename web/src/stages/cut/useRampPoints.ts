import { computed, ref, watch } from 'vue'
import type { PacedClip, Step } from '@/api/types'
import { useDraft } from '@/controls/useDraft'
import { insidePoints, pointsOf, speedAt, type Point } from '@/motion/speed'
import { bendsBetween, knotsOf, throughKnots, withKnot, withKnotSpeed } from './knots'
import { rampStep, type Keep } from './pace'

/** Place of a point among the knots; -1 of one that bends. */
function knotAt(points: Point[], index: number): number {
  const point = points[index]
  if (!point || point.bends) return -1
  return points.slice(0, index).filter((one) => !one.bends).length
}

/** The points of a ramp, one of them in hand, and every way to change them as a step. */
export function useRampPoints(
  props: { clip: PacedClip; keep: Keep },
  least: () => number,
  send: (step: Step) => void,
) {
  const soft = computed(() => props.clip.speed?.soft ?? true)
  const draft = useDraft<Point[]>(() => props.clip)
  const kept = computed(() =>
    insidePoints(pointsOf(props.clip.speed), soft.value, props.clip.length),
  )
  const points = computed(() => draft.value ?? kept.value)
  /** What the source goes through; points that bend only lead there. */
  const knots = computed(() => knotsOf(points.value, soft.value))

  const chosen = ref(-1)
  watch(
    () => props.clip.id,
    () => (chosen.value = -1),
  )
  const point = computed(() => points.value[chosen.value] ?? null)
  const knot = computed(() => knots.value[knotAt(points.value, chosen.value)] ?? null)

  const stepOf = (all: Point[], keep: Keep = props.keep, isSoft = soft.value) =>
    rampStep(props.clip, all, isSoft, keep)

  /** The points with one of them at another speed, and moment where it has others on both sides. */
  function withPoint(index: number, to: { at?: number; speed?: number }): Point[] {
    const all = kept.value.map((one) => ({ ...one }))
    const [from, here, end] = [outer(all, index, -1), all[index], outer(all, index, 1)]
    if (!here) return all
    if (to.at !== undefined && from && end && !here.bends) {
      here.at = Math.min(end.at - 2 * least(), Math.max(from.at + 2 * least(), to.at))
    }
    if (to.speed !== undefined) here.speed = Math.round(to.speed * 1e4) / 1e4
    return bendsBetween(all)
  }
  /** The next point to a side that does not bend. */
  const outer = (all: Point[], index: number, way: 1 | -1) =>
    all.filter((_, i) => (i - index) * way > 0 && !all[i]?.bends).at(way > 0 ? 0 : -1)

  const keptKnots = computed(() => knotsOf(kept.value, soft.value))
  /** The points with one of them elsewhere in the source; its neighbours stay where they are. */
  function withSource(index: number, to: { at: number; source: number }): Point[] {
    const at = knotAt(kept.value, index)
    return inHand(at, throughKnots(withKnot(keptKnots.value, at, to, 2 * least())))
  }
  function withSlope(index: number, speed: number): Point[] {
    const at = knotAt(kept.value, index)
    return inHand(at, throughKnots(withKnotSpeed(keptKnots.value, at, speed)))
  }
  /** New points that bend move a knot on in the row of all points: it stays in hand. */
  function inHand(knot: number, all: Point[]): Point[] {
    const found = all.findIndex((one, index) => !one.bends && knotAt(all, index) === knot)
    if (found >= 0) chosen.value = found
    return all
  }

  /** The points with another pace from one of them to the next, and over what bends on the way. */
  function withPace(index: number, isSoft: boolean): Point[] {
    const end = kept.value.findIndex((one, i) => i > index && !one.bends)
    return kept.value.map((one, i) =>
      i >= index && (end < 0 || i < end) ? { ...one, soft: isSoft } : one,
    )
  }

  /** The points without a pace of their own. */
  const inStep = (all: Point[]): Point[] => all.map((one) => ({ ...one, soft: null }))

  function add(tick: number) {
    const inside = tick > 0 && tick < props.clip.length
    const at = inside ? tick : Math.round(props.clip.length / 2)
    if (kept.value.some((one) => Math.abs(one.at - at) < least())) return
    const made = { at, speed: speedAt(kept.value, soft.value, at), bends: false }
    const all = [...kept.value, made].sort((a, b) => a.at - b.at)
    chosen.value = all.indexOf(made)
    send(stepOf(all))
  }

  const canRemove = computed(() => chosen.value > 0 && chosen.value < points.value.length - 1)
  function remove() {
    // With a point go those that bent the ways beside it.
    const goes = (one: Point, index: number) =>
      index === chosen.value || (Boolean(one.bends) && Math.abs(index - chosen.value) === 1)
    const rest = kept.value.filter((one, index) => !goes(one, index))
    chosen.value = -1
    send(stepOf(rest))
  }

  return {
    soft,
    draft,
    kept,
    points,
    knots,
    chosen,
    point,
    knot,
    stepOf,
    withPoint,
    withSource,
    withSlope,
    withPace,
    inStep,
    add,
    canRemove,
    remove,
  }
}

export type RampPoints = ReturnType<typeof useRampPoints>
