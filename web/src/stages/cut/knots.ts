/** A ramp as source time: knots that the source goes through, and the speeds that lead there. */
import { sourceOffset, type Point } from '@/motion/speed'

/** At a tick of the clip the source is so far from where the clip begins, and runs at a speed. */
export interface Knot {
  at: number
  source: number
  speed: number
  /** How the speed changes on the way to the next, if not as in all of the ramp. */
  soft?: boolean | null
}

/** The fastest a source runs, either way. */
export const FASTEST = 20
/** Speeds nearer than this are the same. */
const SAME = 1e-3

export function knotsOf(points: Point[], soft: boolean): Knot[] {
  return points
    .filter((point) => !point.bends)
    .map((point) => ({
      at: point.at,
      speed: point.speed,
      soft: point.soft ?? null,
      source: sourceOffset(points, soft, point.at),
    }))
}

/** Two speeds lead as far as their mean does; where the source is to go another way, a point halfway bends it. */
export function throughKnots(knots: Knot[]): Point[] {
  return knots.flatMap(({ at, speed, soft = null }, index) => {
    const here = { at, speed, soft, bends: false }
    const [from, to] = [knots[index], knots[index + 1]]
    if (!from || !to) return [here]
    const bent = bentSpeed(from, to)
    if (Math.abs(bent - (from.speed + to.speed) / 2) < SAME) return [here]
    const middle = Math.round((from.at + to.at) / 2)
    return [here, { at: middle, speed: rounded(bent), soft, bends: true }]
  })
}

/** Points that bend, again halfway between the others after one of these was moved. */
export function bendsBetween(points: Point[]): Point[] {
  return points.map((point, index) => {
    const [before, after] = [points[index - 1], points[index + 1]]
    if (!point.bends || !before || !after) return point
    return { ...point, at: Math.round((before.at + after.at) / 2) }
  })
}

/** The knots with one of them elsewhere, as far as speeds can follow; all others stay. */
export function withKnot(
  knots: Knot[],
  index: number,
  to: { at: number; source: number },
  least: number,
) {
  const knot = knots[index]
  if (!knot || index === 0) return knots
  const [before, after] = [knots[index - 1], knots[index + 1]]
  let at = knot.at
  if (before && after) at = clamped(to.at, before.at + least, after.at - least)
  const moved = { ...knot, at }
  const low = lowest(knots)
  let bounds: [number, number] = [-Infinity, Infinity]
  if (before) {
    const [a, b] = reach(before, moved, low)
    bounds = [before.source + a, before.source + b]
  }
  if (after) {
    const [a, b] = reach(moved, after, low)
    bounds = [Math.max(bounds[0], after.source - b), Math.min(bounds[1], after.source - a)]
  }
  if (bounds[0] > bounds[1]) return knots
  return replaced(knots, index, { ...moved, source: clamped(to.source, ...bounds) })
}

/** The knots with another speed at one of them, as far as the ways beside it allow. */
export function withKnotSpeed(knots: Knot[], index: number, speed: number): Knot[] {
  const knot = knots[index]
  if (!knot) return knots
  const low = lowest([...knots, { ...knot, speed }])
  let bounds: [number, number] = [low, FASTEST]
  for (const other of [knots[index - 1], knots[index + 1]]) {
    if (!other) continue
    const both = 4 * meanSpeed(knot, other) - other.speed
    bounds = [Math.max(bounds[0], both - 2 * FASTEST), Math.min(bounds[1], both - 2 * low)]
  }
  if (bounds[0] > bounds[1]) return knots
  return replaced(knots, index, { ...knot, speed: rounded(clamped(speed, ...bounds)) })
}

const meanSpeed = (from: Knot, to: Knot) => (to.source - from.source) / (to.at - from.at)
const bentSpeed = (from: Knot, to: Knot) => 2 * meanSpeed(from, to) - (from.speed + to.speed) / 2

/** How far the source can go between two knots: least and most, with their speeds as they are. */
function reach(from: Knot, to: Knot, low: number): [number, number] {
  const plain = (from.speed + to.speed) / 2
  const long = to.at - from.at
  return [(long * (plain + low)) / 2, (long * (plain + FASTEST)) / 2]
}

/** What goes forwards all the time is not turned round by the way. */
const lowest = (knots: Knot[]) => (knots.some((knot) => knot.speed < 0) ? -FASTEST : 0)
const replaced = (knots: Knot[], index: number, knot: Knot) =>
  knots.map((one, i) => (i === index ? knot : one))
const clamped = (value: number, low: number, high: number) => Math.min(high, Math.max(low, value))
const rounded = (speed: number) => Math.round(speed * 1e7) / 1e7
