import type { Point, Size } from './placing'

/** Pixels of the screen from the middle of a layer to handles at its corners, at the least. */
export const LEAST = 46
/** How far handles that turn and lean stand off its edges. */
const OFF = 34
/** Pixels that handles keep from the edge of the picture. */
const EDGE = 12

export interface Standing {
  /** Around the layer, at least a finger's room; the corners are handles of its size. */
  frame: Point[]
  /** Which corners can be handled. */
  corners: Point[]
  turn: { from: Point; at: Point } | null
  lean: Point | null
  /** Right, and bottom. */
  sides: { width: Point; height: Point }
}

/**
 * Where the handles of a layer stand on the screen, from its corners there. Around a small one they
 * stand off, so that a finger on the layer itself always moves it; at the edge of the picture they
 * give way along it, and those that would come to lie on the layer are left out.
 */
export function standing(spots: Point[], picture: Size): Standing {
  const [a, b, c, d] = spots as [Point, Point, Point, Point]
  const middle = { x: (a.x + c.x) / 2, y: (a.y + c.y) / 2 }
  const across = grown(half(a, b, d, c), { x: 1, y: 0 })
  const down = grown(half(a, d, b, c), { x: -across.y, y: across.x })
  const at = (right: number, below: number): Point => ({
    x: middle.x + across.x * right + down.x * below,
    y: middle.y + across.y * right + down.y * below,
  })
  const beyond = (way: Point, sign: number): Point => {
    const long = Math.hypot(way.x, way.y)
    const far = (sign * (long + OFF)) / long
    return { x: middle.x + way.x * far, y: middle.y + way.y * far }
  }
  const free = (spot: Point) => Math.hypot(spot.x - middle.x, spot.y - middle.y) >= LEAST - 4
  const kept = (spot: Point) => within(spot, picture)
  const frame = [at(-1, -1), at(1, -1), at(1, 1), at(-1, 1)]

  const small = Math.hypot(across.x, across.y) < 2 * LEAST
  const ends = [
    { from: at(0, -1), at: beyond(down, -1) },
    { from: at(0, 1), at: beyond(down, 1) },
    { from: at(1, 0), at: beyond(across, 1) },
    { from: at(-1, 0), at: beyond(across, -1) },
  ]
  const turn = ends.find((one) => isInside(one.at, picture)) ?? {
    from: at(0, -1),
    at: kept(at(0, -0.72)),
  }
  const lean = small ? kept(beyond(across, -1)) : kept(at(-0.46, -1))
  const taken = Math.hypot(lean.x - turn.at.x, lean.y - turn.at.y) < 30
  return {
    frame,
    corners: frame.map(kept).filter(free),
    turn: free(turn.at) ? turn : null,
    lean: free(lean) && !taken ? lean : null,
    sides: { width: kept(at(1, 0)), height: kept(at(0, 1)) },
  }
}

/** From the middle to a side: half of the way from one side to the one across. */
function half(a: Point, b: Point, c: Point, d: Point): Point {
  return { x: (b.x + d.x - a.x - c.x) / 4, y: (b.y + d.y - a.y - c.y) / 4 }
}

function grown(way: Point, otherwise: Point): Point {
  const long = Math.hypot(way.x, way.y)
  if (long >= LEAST) return way
  const unit = long > 0.01 ? { x: way.x / long, y: way.y / long } : otherwise
  const back = Math.hypot(unit.x, unit.y) || 1
  return { x: (unit.x / back) * LEAST, y: (unit.y / back) * LEAST }
}

function within({ x, y }: Point, { width, height }: Size): Point {
  return {
    x: Math.min(width - EDGE, Math.max(EDGE, x)),
    y: Math.min(height - EDGE, Math.max(EDGE, y)),
  }
}

function isInside({ x, y }: Point, { width, height }: Size): boolean {
  return x >= 10 && y >= 10 && x <= width - 10 && y <= height - 10
}
