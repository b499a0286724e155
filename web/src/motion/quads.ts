/** Four corners around a thing, clockwise, in heights of the picture from its middle. */

export type Spot = [number, number]
export type Quad = [Spot, Spot, Spot, Spot]

export function boxAround([x, y]: Spot, wide: number, high: number): Quad {
  return [
    [x - wide, y - high],
    [x + wide, y - high],
    [x + wide, y + high],
    [x - wide, y + high],
  ]
}

export function middleOf(quad: Quad): Spot {
  const sum = quad.reduce<Spot>(([x, y], [a, b]) => [x + a, y + b], [0, 0])
  return [sum[0] / 4, sum[1] / 4]
}

export const shifted = (quad: Quad, x: number, y: number) =>
  quad.map(([a, b]) => [a + x, b + y]) as Quad

/** Turned and sized about its middle, so that a corner comes to a spot. */
export function swung(quad: Quad, corner: number, to: Spot): Quad {
  const middle = middleOf(quad)
  const from = quad[corner] as Spot
  const was: Spot = [from[0] - middle[0], from[1] - middle[1]]
  const now: Spot = [to[0] - middle[0], to[1] - middle[1]]
  const power = was[0] ** 2 + was[1] ** 2 || 1e-9
  const along = (was[0] * now[0] + was[1] * now[1]) / power
  const across = (was[0] * now[1] - was[1] * now[0]) / power
  return quad.map(([x, y]) => {
    const [a, b] = [x - middle[0], y - middle[1]]
    return [middle[0] + a * along - b * across, middle[1] + a * across + b * along]
  }) as Quad
}

/** An upright box about its middle, with a corner at a spot. */
export function stretched(quad: Quad, to: Spot, least: number): Quad {
  const middle = middleOf(quad)
  const half = (at: 0 | 1) => Math.max(least, Math.abs(to[at] - middle[at]))
  return boxAround(middle, half(0), half(1))
}

export const withCorner = (quad: Quad, corner: number, to: Spot) =>
  quad.map((spot, index) => (index === corner ? to : spot)) as Quad

/** Whether it goes around a thing, clockwise and without a dent. */
export function isSound(quad: Quad): boolean {
  return quad.every((spot, index) => {
    const [b, c] = [quad[(index + 1) % 4] as Spot, quad[(index + 2) % 4] as Spot]
    return (b[0] - spot[0]) * (c[1] - b[1]) - (b[1] - spot[1]) * (c[0] - b[0]) > 1e-6
  })
}

/** Room around spots that are followed, in heights of the picture. */
const ROOM = 0.02

/** What spots are followed as: corners around them, and where they are within, as shares. */
export interface Spotted {
  quad: Quad
  shares: Spot[]
}

/** The box around spots; where all corners count, four spots are its corners themselves. */
export function spotted(spots: Spot[], leans: boolean): Spotted {
  const quad = leans && spots.length === 4 ? clockwise(spots) : null
  if (quad && isSound(quad)) {
    return {
      quad,
      shares: [
        [0, 0],
        [1, 0],
        [1, 1],
        [0, 1],
      ],
    }
  }
  const [low, high] = ([Math.min, Math.max] as const).map((most, end) =>
    ([0, 1] as const).map((at) => most(...spots.map((spot) => spot[at])) + (end ? ROOM : -ROOM)),
  ) as [Spot, Spot]
  const size: Spot = [high[0] - low[0], high[1] - low[1]]
  return {
    quad: boxAround([(low[0] + high[0]) / 2, (low[1] + high[1]) / 2], size[0] / 2, size[1] / 2),
    shares: spots.map(([x, y]) => [(x - low[0]) / size[0], (y - low[1]) / size[1]]),
  }
}

/** Four spots in order around their middle, the upper left one first. */
function clockwise(spots: Spot[]): Quad {
  const [x, y] = middleOf(spots as Quad)
  const turn = (spot: Spot) => Math.atan2(spot[1] - y, spot[0] - x)
  return [...spots].sort((a, b) => turn(a) - turn(b)) as Quad
}

/** Where shares across and down a thing are, in perspective (P. Heckbert, 1989). */
export function withinQuad([a, b, c, d]: Quad, [u, v]: Spot): Spot {
  const at = (k: 0 | 1): [number, number, number, number] => [
    b[k] - c[k],
    d[k] - c[k],
    a[k] - b[k] + c[k] - d[k],
    a[k],
  ]
  const [[x1, x2, x3, x0], [y1, y2, y3, y0]] = [at(0), at(1)]
  const area = x1 * y2 - x2 * y1 || 1e-12
  const [g, h] = [(x3 * y2 - x2 * y3) / area, (x1 * y3 - x3 * y1) / area]
  const depth = g * u + h * v + 1
  return [
    ((b[0] - x0 + g * b[0]) * u + (d[0] - x0 + h * d[0]) * v + x0) / depth,
    ((b[1] - y0 + g * b[1]) * u + (d[1] - y0 + h * d[1]) * v + y0) / depth,
  ]
}
