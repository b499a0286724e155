type Spot = [number, number]

/** Share of a line's extent that its ends may be apart for it to count as closed. */
const CLOSED = 0.5
/** What a cut-out holds of a line at most. */
const MOST = 400

/**
 * What was drawn around something: a line that comes back to where it began, or one from corner to
 * corner, of which the two corners are told. A mere tap is nothing.
 */
export function aroundOf(points: Spot[]): Spot[] {
  const [first, last] = [points[0], points.at(-1)]
  if (!first || !last) return []
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)]
  const extent = Math.hypot(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys))
  if (extent < 0.02) return []
  const apart = Math.hypot(first[0] - last[0], first[1] - last[1])
  if (points.length < 3 || apart > CLOSED * extent) return [first, last]
  const each = Math.ceil(points.length / MOST)
  return points.filter((_, at) => at % each === 0)
}

/** The corners of what is kept of it: a box has two. */
export function outlineOf(around: Spot[]): Spot[] {
  const [a, b] = around
  if (around.length !== 2 || !a || !b) return around
  return [a, [b[0], a[1]], b, [a[0], b[1]]]
}
