import type { PacedClip, SpeedPoint } from '@/api/types'
import { insidePoints, pointsOf, sourceOffset } from '@/timeline/speed'

export type Point = Required<SpeedPoint>

/** Factors that are one tap away. */
export const FACTORS = [0.25, 0.5, 1, 2, 4]

/** Ramps to begin from: shares of the clip's length, and speeds there. */
export const RAMPS: { id: string; name: string; shape: [number, number][] }[] = [
  {
    id: 'rush-in',
    name: 'Rush in',
    shape: [
      [0, 3],
      [0.45, 1],
      [1, 1],
    ],
  },
  {
    id: 'rush-out',
    name: 'Rush out',
    shape: [
      [0, 1],
      [0.55, 1],
      [1, 3],
    ],
  },
  {
    id: 'hush',
    name: 'Hush',
    shape: [
      [0, 2],
      [0.4, 0.4],
      [0.6, 0.4],
      [1, 2],
    ],
  },
  {
    id: 'burst',
    name: 'Burst',
    shape: [
      [0, 0.6],
      [0.4, 3],
      [0.6, 3],
      [1, 0.6],
    ],
  },
]

/** The one factor of a clip, or null if its speed changes. */
export function factorOf(clip: PacedClip): number | null {
  const points = pointsOf(clip.speed)
  const first = points[0]?.speed ?? 1
  return points.every((point) => point.speed === first) ? first : null
}

export function shapePoints(shape: [number, number][], length: number): Point[] {
  return shape.map(([share, speed]) => ({ at: Math.round(share * length), speed }))
}

/** Length in ticks after the speeds at the points changed and the content stayed; null if it turns. */
export function lengthAfter(clip: PacedClip, points: Point[]): number | null {
  const soft = clip.speed?.soft ?? true
  const old = pointsOf(clip.speed)
  const knots = insidePoints(points, soft, clip.length)
  let total = 0
  for (let i = 1; i < knots.length; i++) {
    const [a, b] = [knots[i - 1], knots[i]]
    if (!a || !b) return null
    const way = sourceOffset(old, soft, b.at) - sourceOffset(old, soft, a.at)
    const mean = (a.speed + b.speed) / 2
    if (mean * way <= 0) return null
    total += way / mean
  }
  return total
}

/** A dragged point of the source view: the speed there that puts the source at `offset`. */
export function speedFor(points: Point[], index: number, offset: number, soft: boolean): number {
  const [before, here] = [points[index - 1], points[index]]
  if (!before || !here) return here?.speed ?? 1
  const base = sourceOffset(points, soft, before.at)
  const mean = (offset - base) / (here.at - before.at)
  return Math.min(20, Math.max(-20, 2 * mean - before.speed))
}
