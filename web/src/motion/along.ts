/** How a mask goes along with what is tracked: a shift, a turn and a size of the picture. */
import { middleOf, type Quad, type Spot } from './quads'

export interface Along {
  size: number
  /** Degrees, clockwise. */
  turn: number
  to: (spot: Spot) => Spot
  back: (spot: Spot) => Spot
}

/** From where a thing was to where it is; of what only moves, the shift alone. */
export function alongOf(change: 'moves' | 'turns' | 'leans', was: Quad, now: Quad): Along {
  const [from, to] = [middleOf(was), middleOf(now)]
  let [along, across] = [1, 0]
  if (change !== 'moves') {
    let power = 0
    along = 0
    was.forEach(([x, y], index) => {
      const [u, v] = now[index] ?? [0, 0]
      const [a, b, c, d] = [x - from[0], y - from[1], u - to[0], v - to[1]]
      power += a * a + b * b
      along += a * c + b * d
      across += a * d - b * c
    })
    along /= power || 1
    across /= power || 1
  }
  const power = along * along + across * across || 1
  return {
    size: Math.sqrt(power),
    turn: (Math.atan2(across, along) * 180) / Math.PI,
    to: ([x, y]) => {
      const [a, b] = [x - from[0], y - from[1]]
      return [to[0] + a * along - b * across, to[1] + a * across + b * along]
    },
    back: ([x, y]) => {
      const [a, b] = [x - to[0], y - to[1]]
      return [
        from[0] + (a * along + b * across) / power,
        from[1] + (b * along - a * across) / power,
      ]
    },
  }
}

interface Values {
  centre?: Spot
  size?: Spot
  turn?: number
  grow?: number
  radius?: number
  inwards?: number
  outwards?: number
}

const LENGTHS = ['grow', 'radius', 'inwards', 'outwards'] as const

/** Values of a mask as they are seen, from those that are kept; or, `back`, the other way. */
export function goneAlong<T extends Values>(values: T, along: Along, back = false): T {
  const by = back ? 1 / along.size : along.size
  const out: T = { ...values }
  if (values.centre) out.centre = (back ? along.back : along.to)(values.centre)
  if (values.size) out.size = [values.size[0] * by, values.size[1] * by]
  if (values.turn !== undefined) out.turn = values.turn + (back ? -along.turn : along.turn)
  for (const name of LENGTHS) {
    const value = values[name]
    if (value !== undefined) out[name] = value * by
  }
  return out
}
