import type { Along } from '@/motion/along'
import type { Point } from './placing'

/** A mask as it is now, its keys resolved. Lengths in heights of the picture, from its middle. */
export interface MaskNow {
  kind: 'ellipse' | 'rectangle' | 'edge' | 'path' | 'brush'
  centre: [number, number]
  size: [number, number]
  turn: number
  grow: number
  radius: number
  inwards: number
  outwards: number
}

/** The way from the picture's own measure to the screen, and back. */
export interface Frame {
  to(point: Point): Point
  back(point: Point): Point
}

export interface Grip {
  id: 'width' | 'height' | 'turn' | 'soft' | 'inner'
  x: number
  y: number
}

/** `corners` of the picture on the canvas, from the top left, clockwise; `scale` to the screen. */
export function frameOfMask(corners: Point[], aspect: number, scale: number): Frame {
  const [a = { x: 0, y: 0 }, b = a, , d = a] = corners
  const across = { x: (b.x - a.x) / aspect, y: (b.y - a.y) / aspect }
  const down = { x: d.x - a.x, y: d.y - a.y }
  const middle = { x: (b.x + d.x) / 2, y: (b.y + d.y) / 2 }
  const area = across.x * down.y - across.y * down.x || 1
  return {
    to: ({ x, y }) => ({
      x: (middle.x + across.x * x + down.x * y) * scale,
      y: (middle.y + across.y * x + down.y * y) * scale,
    }),
    back: (point) => {
      const [x, y] = [point.x / scale - middle.x, point.y / scale - middle.y]
      return {
        x: (x * down.y - y * down.x) / area,
        y: (y * across.x - x * across.y) / area,
      }
    },
  }
}

/** The same for what goes along with something that is followed in the picture. */
export function framedAlong(frame: Frame, along: Along): Frame {
  return {
    to: ({ x, y }) => {
      const [u, v] = along.to([x, y])
      return frame.to({ x: u, y: v })
    },
    back: (point) => {
      const { x, y } = frame.back(point)
      const [u, v] = along.back([x, y])
      return { x: u, y: v }
    },
  }
}

const FAR = 3
/** How far from the edge a grip of softness is at least. */
const LEAST = 0.025

/**
 * What is drawn of a mask: its outline, where its softness ends on both sides, and where to take it. Paths and
 * brush strokes are drawn and taken by their own handles.
 */
export function maskShape(
  mask: MaskNow,
  frame: Frame,
): { body: string; soft: string; inner: string; grips: Grip[] } {
  const turn = (mask.turn * Math.PI) / 180
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)]
  const place = (x: number, y: number) =>
    frame.to({
      x: mask.centre[0] + x * cos - y * sin,
      y: mask.centre[1] + x * sin + y * cos,
    })
  const path = (points: Point[], closed = true) =>
    `M${points.map(({ x, y }) => `${x.toFixed(1)} ${y.toFixed(1)}`).join('L')}${closed ? 'Z' : ''}`
  if (mask.kind === 'path' || mask.kind === 'brush') {
    return { body: '', soft: '', inner: '', grips: [] }
  }
  const outline = (grown: number) =>
    path(
      outlineOf(mask, grown).map(([x, y]) => place(x, y)),
      mask.kind !== 'edge',
    )
  const { grow, inwards, outwards } = mask
  const [wide, high] = [mask.size[0] + grow, mask.size[1] + grow]
  const top = mask.kind === 'edge' ? grow : high
  const stalk = mask.kind === 'edge' ? 0.14 - grow : high + 0.07
  const inside = Math.max(inwards, LEAST)
  const grips: Grip[] = [
    { id: 'soft', ...place(mask.kind === 'edge' ? 0.12 : 0, top + Math.max(outwards, LEAST)) },
    {
      id: 'inner',
      ...(mask.kind === 'edge' ? place(-0.12, grow - inside) : place(inside - wide, 0)),
    },
    { id: 'turn', ...place(0, -stalk) },
  ]
  if (mask.kind !== 'edge') {
    grips.unshift({ id: 'width', ...place(wide, 0) }, { id: 'height', ...place(0, -high) })
  }
  const inner = inwards ? outline(grow - inwards) : ''
  return { body: outline(grow), soft: outline(grow + outwards), inner, grips }
}

/**
 * Where the signed distance to a mask's edge is `level`, about its middle and before its turn: what
 * the core draws there is half let through, or where its softness ends.
 */
export function outlineOf(mask: MaskNow, level: number): [number, number][] {
  const [wide, high] = mask.size
  if (mask.kind === 'edge') {
    return [
      [-FAR, level],
      [FAR, level],
    ]
  }
  return mask.kind === 'ellipse' ? beside(wide, high, level) : rounded(mask, level)
}

const ROUND = 96

/** The line beside an ellipse: as far from it everywhere, so no ellipse itself. */
function beside(wide: number, high: number, by: number): [number, number][] {
  return Array.from({ length: ROUND }, (_, i) => {
    const angle = (i / ROUND) * 2 * Math.PI
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)]
    const long = Math.hypot(cos * high, sin * wide) || 1
    return [cos * (wide + (by * high) / long), sin * (high + (by * wide) / long)]
  })
}

function rounded(mask: MaskNow, by: number): [number, number][] {
  const [wide, high] = [Math.max(0, mask.size[0] + by), Math.max(0, mask.size[1] + by)]
  const own = Math.min(Math.max(mask.radius, 0), mask.size[0], mask.size[1])
  const radius = Math.max(0, own + by)
  const corners = [
    [1, -1, -90],
    [1, 1, 0],
    [-1, 1, 90],
    [-1, -1, 180],
  ] as const
  return corners.flatMap(([sx, sy, from]) =>
    Array.from({ length: 13 }, (_, i): [number, number] => {
      const angle = ((from + i * 7.5) * Math.PI) / 180
      return [
        sx * (wide - radius) + Math.cos(angle) * radius,
        sy * (high - radius) + Math.sin(angle) * radius,
      ]
    }),
  )
}

/** The way from a mask's own measure, moved and turned, to the screen and back. */
export function within(frame: Frame, centre: [number, number], turn: number): Frame {
  const angle = (turn * Math.PI) / 180
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)]
  return {
    to: ({ x, y }) =>
      frame.to({ x: centre[0] + x * cos - y * sin, y: centre[1] + x * sin + y * cos }),
    back: (point) => {
      const { x, y } = frame.back(point)
      const [dx, dy] = [x - centre[0], y - centre[1]]
      return { x: dx * cos + dy * sin, y: dy * cos - dx * sin }
    },
  }
}
