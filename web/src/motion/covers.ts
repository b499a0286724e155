import type { Spot } from './quads'

interface Point {
  x: number
  y: number
}

/** Share by which a cover is larger than what is tracked: nothing of it looks out. */
export const MARGIN = 0.12

/**
 * The mask, in heights of the canvas from its middle, that covers four spots (canvas pixels,
 * clockwise): upright in the thing's own axes. An ellipse goes around its corners. It is larger by a
 * share of that, the margin.
 */
export function coverOver(
  spots: readonly Point[],
  canvas: { width: number; height: number },
  shape: 'ellipse' | 'rectangle',
  margin = MARGIN,
): { centre: Spot; size: Spot; turn: number } {
  const [a, b] = [spots[0] ?? { x: 0, y: 0 }, spots[1] ?? { x: 1, y: 0 }]
  const angle = Math.atan2(b.y - a.y, b.x - a.x)
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)]
  const along = spots.map(({ x, y }) => x * cos + y * sin)
  const across = spots.map(({ x, y }) => y * cos - x * sin)
  const [left, right] = [Math.min(...along), Math.max(...along)]
  const [top, bottom] = [Math.min(...across), Math.max(...across)]
  const [u, v] = [(left + right) / 2, (top + bottom) / 2]
  const more = (shape === 'ellipse' ? Math.SQRT2 : 1) * (1 + margin)
  const { width, height } = canvas
  const round = (value: number) => Math.round(value * 1e5) / 1e5
  return {
    centre: [
      round((u * cos - v * sin - width / 2) / height),
      round((u * sin + v * cos - height / 2) / height),
    ],
    size: [
      round(Math.max(0.004, ((right - left) / 2 / height) * more)),
      round(Math.max(0.004, ((bottom - top) / 2 / height) * more)),
    ],
    turn: round((angle * 180) / Math.PI),
  }
}
