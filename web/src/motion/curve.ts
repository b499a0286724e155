export type Spot = [number, number]

/** Heights of a curve through points, as the core draws it (see `kitecore.motion.curve`). */
export function curveAt(points: Spot[], x: number): number {
  const first = points[0]
  const last = points.at(-1)
  if (!first || !last) return x
  if (points.length === 1) return first[1]
  const slopes = slopesOf(points)
  if (x <= first[0]) return first[1] + (x - first[0]) * (slopes[0] ?? 0)
  if (x >= last[0]) return last[1] + (x - last[0]) * (slopes.at(-1) ?? 0)
  const index = points.findIndex((point) => point[0] > x) - 1
  const [a, b] = [points[index] ?? first, points[index + 1] ?? last]
  const wide = b[0] - a[0]
  const t = (x - a[0]) / wide
  const [start, end] = [(slopes[index] ?? 0) * wide, (slopes[index + 1] ?? 0) * wide]
  return (
    a[1] * (1 + 2 * t) * (1 - t) ** 2 +
    b[1] * t * t * (3 - 2 * t) +
    start * t * (1 - t) ** 2 +
    end * t * t * (t - 1)
  )
}

/** The same around a circle: x 0..1 is once around. */
export function aroundAt(points: Spot[], x: number): number {
  const again = [-1, 0, 1].flatMap((turn) => points.map(([at, y]): Spot => [at + turn, y]))
  return curveAt(again, x)
}

function slopesOf(points: Spot[]): number[] {
  const wide = points.slice(1).map((point, i) => point[0] - (points[i]?.[0] ?? 0))
  const steep = points.slice(1).map((p, i) => (p[1] - (points[i]?.[1] ?? 0)) / (wide[i] ?? 1))
  if (points.length === 2) return [steep[0] ?? 0, steep[0] ?? 0]
  const at = (list: number[], index: number) => list.at(index) ?? 0
  return points.map((_, i) => {
    if (i === 0) return endSlope(at(wide, 0), at(wide, 1), at(steep, 0), at(steep, 1))
    if (i === points.length - 1) {
      return endSlope(at(wide, -1), at(wide, -2), at(steep, -1), at(steep, -2))
    }
    const [left, right] = [at(steep, i - 1), at(steep, i)]
    if (left * right <= 0) return 0
    const first = 2 * at(wide, i) + at(wide, i - 1)
    const second = at(wide, i) + 2 * at(wide, i - 1)
    return (first + second) / (first / left + second / right)
  })
}

function endSlope(near: number, far: number, steep: number, next: number): number {
  const slope = ((2 * near + far) * steep - near * next) / (near + far)
  if (slope * steep <= 0) return 0
  return steep * next <= 0 && Math.abs(slope) > Math.abs(3 * steep) ? 3 * steep : slope
}

/** Points after one was moved: it stays between its neighbours. */
export function moved(points: Spot[], index: number, to: Spot): Spot[] {
  const [before, after] = [points[index - 1], points[index + 1]]
  const low = before ? before[0] + 0.01 : 0
  const high = after ? after[0] - 0.01 : 1
  const at = (value: number) => Math.round(value * 1000) / 1000
  const x = at(Math.min(high, Math.max(low, to[0])))
  const y = at(Math.min(1, Math.max(0, to[1])))
  return points.map((point, i) => (i === index ? [x, y] : point))
}

/** Points with one more, and its index; null where it would lie on another. */
export function added(points: Spot[], spot: Spot): { points: Spot[]; index: number } | null {
  if (points.some((point) => Math.abs(point[0] - spot[0]) < 0.012) || points.length >= 24)
    return null
  const all = [...points, spot].sort((a, b) => a[0] - b[0])
  return { points: all, index: all.indexOf(spot) }
}
