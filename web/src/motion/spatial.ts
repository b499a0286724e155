/** Points that move along curves at an even pace; as the core does it, to a part of a pixel. */

export type Vector = [number, number]

const PARTS = 192

function at(a: Vector, b: Vector, c: Vector, d: Vector, t: number): Vector {
  const s = 1 - t
  const [p, q, r, u] = [s ** 3, 3 * s * s * t, 3 * s * t * t, t ** 3]
  return [a[0] * p + b[0] * q + c[0] * r + d[0] * u, a[1] * p + b[1] * q + c[1] * r + d[1] * u]
}

/**
 * The point a share of the way from `from` to `to`, whose handles count from them; beyond 0..1
 * straight on.
 */
export function spotBetween(
  from: Vector,
  after: Vector,
  before: Vector,
  to: Vector,
  share: number,
): Vector {
  if (![...after, ...before].some(Boolean)) {
    return [from[0] + (to[0] - from[0]) * share, from[1] + (to[1] - from[1]) * share]
  }
  const b: Vector = [from[0] + after[0], from[1] + after[1]]
  const c: Vector = [to[0] + before[0], to[1] + before[1]]
  const spots = Array.from({ length: PARTS + 1 }, (_, i) => at(from, b, c, to, i / PARTS))
  const along = [0]
  for (let i = 1; i <= PARTS; i++) {
    along.push((along[i - 1] ?? 0) + far(spots[i - 1] as Vector, spots[i] as Vector))
  }
  const whole = along[PARTS] || 1
  const wanted = Math.min(1, Math.max(0, share)) * whole
  let i = along.findIndex((length) => length >= wanted)
  i = Math.max(1, i)
  const [low, high] = [along[i - 1] ?? 0, along[i] ?? 0]
  const t = (i - 1 + (wanted - low) / (high - low || 1)) / PARTS
  const spot = at(from, b, c, to, t)
  const over = (share - Math.min(1, Math.max(0, share))) * whole
  if (!over) return spot
  // Straight on, the way it begins or ends: along its handle, or where that is none the other's end.
  const [p, q] = share > 1 ? [far(c, to) ? c : b, to] : [from, far(from, b) ? b : c]
  const length = far(p, q) || 1
  return [spot[0] + ((q[0] - p[0]) / length) * over, spot[1] + ((q[1] - p[1]) / length) * over]
}

function far(a: Vector, b: Vector): number {
  return Math.hypot(a[0] - b[0], a[1] - b[1])
}
