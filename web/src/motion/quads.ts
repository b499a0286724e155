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
