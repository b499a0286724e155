import type { PacedClip, Step } from '@/api/types'
import { t } from '@/texts'
import { insidePoints, pointsOf, sourceOffset, type Point } from '@/motion/speed'

/** What stays when speeds change: what is seen of the source, or the length. */
export type Keep = 'content' | 'length'

/** Factors that are one tap away. */
export const FACTORS = [0.25, 0.5, 1, 2, 4]

/** Ramps to begin from: shares of the clip's length, and speeds there. */
export const RAMPS: { id: string; name: string; shape: [number, number][] }[] = [
  {
    id: 'rush-in',
    name: t('cut.pace.rushIn'),
    shape: [
      [0, 3],
      [0.45, 1],
      [1, 1],
    ],
  },
  {
    id: 'rush-out',
    name: t('cut.pace.rushOut'),
    shape: [
      [0, 1],
      [0.55, 1],
      [1, 3],
    ],
  },
  {
    id: 'hush',
    name: t('cut.pace.hush'),
    shape: [
      [0, 2],
      [0.4, 0.4],
      [0.6, 0.4],
      [1, 2],
    ],
  },
  {
    id: 'burst',
    name: t('cut.pace.burst'),
    shape: [
      [0, 0.6],
      [0.4, 3],
      [0.6, 3],
      [1, 0.6],
    ],
  },
]

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

/** Speeds as a step; what turns round has no length that could follow. */
export function rampStep(clip: PacedClip, points: Point[], soft: boolean, keep: Keep): Step {
  const kept = lengthAfter(clip, points) === null ? 'length' : keep
  const all = points.map((point) => ({ bends: false, ...point }))
  return { kind: 'ramp', clip: clip.id ?? '', points: all, soft, keep: kept }
}
