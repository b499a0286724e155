/** The same function of source time that the server draws by, for faces and for the graph. */
import type { Speed, SpeedPoint } from '@/api/types'

/** A moment of a clip and the speed there. */
export type Point = Required<Pick<SpeedPoint, 'at' | 'speed'>> & Partial<SpeedPoint>

const PLAIN: Point[] = [{ at: 0, speed: 1 }]

export function pointsOf(speed: Speed | undefined): Point[] {
  const points = speed?.points
  return points?.length ? points : PLAIN
}

/** The speed, if it is the same all the time. */
export function steadySpeed(speed: Speed | undefined): number | null {
  const [first, ...others] = pointsOf(speed)
  return first && others.every((point) => point.speed === first.speed) ? first.speed : null
}

/** Whether the speed eases from a point to the next, in a ramp that does or does not. */
export const isSoft = (point: Point, soft: boolean) => point.soft ?? soft

/** Speed at a tick counted from the start of the clip. */
export function speedAt(points: Point[], soft: boolean, tick: number): number {
  const [first, last] = [points[0], points.at(-1)]
  if (!first || !last) return 1
  if (tick <= first.at) return first.speed
  if (tick >= last.at) return last.speed
  const index = points.findIndex((point) => point.at > tick)
  const [a, b] = [points[index - 1], points[index]]
  if (!a || !b) return last.speed
  const u = (tick - a.at) / (b.at - a.at)
  return a.speed + (b.speed - a.speed) * (isSoft(a, soft) ? u * u * (3 - 2 * u) : u)
}

function area(points: Point[], soft: boolean, tick: number): number {
  const [first, last] = [points[0], points.at(-1)]
  if (!first || !last) return tick
  if (tick <= first.at) return (tick - first.at) * first.speed
  let sum = 0
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1], points[i]]
    if (!a || !b) break
    const length = b.at - a.at
    if (tick <= b.at) {
      const u = (tick - a.at) / length
      const risen = isSoft(a, soft) ? u ** 3 - u ** 4 / 2 : (u * u) / 2
      return sum + length * (a.speed * u + (b.speed - a.speed) * risen)
    }
    sum += (length * (a.speed + b.speed)) / 2
  }
  return sum + (tick - last.at) * last.speed
}

/** Source ticks that pass from the start of the clip to `tick`. */
export function sourceOffset(points: Point[], soft: boolean, tick: number): number {
  return area(points, soft, tick) - area(points, soft, 0)
}

/** The points of a clip of this length, with one at its start and one at its end. */
export function insidePoints(points: Point[], soft: boolean, length: number): Point[] {
  const before = points.findLast((point) => point.at <= 0)
  const between = points.filter((point) => point.at > 0 && point.at < length)
  return [
    { at: 0, speed: speedAt(points, soft, 0), soft: before?.soft ?? null },
    ...between,
    { at: length, speed: speedAt(points, soft, length) },
  ]
}
