import type { Cell } from '@/api/types'
import type { Point, Size } from './placing'

/** The corners of a split-screen cell on the canvas, clockwise from the top left (as the server cuts). */
export function cellCorners(cell: Cell, canvas: Size): Point[] {
  if (cell.upright) {
    const lying = cellCorners(
      { ...cell, upright: false },
      { width: canvas.height, height: canvas.width },
    )
    const [a, b, c, d] = lying.map(({ x, y }) => ({ x: y, y: x }))
    return a && b && c && d ? [a, d, c, b] : []
  }
  const { gap = 12, margin = 0, slant = 0, rows } = cell
  let row = 0
  let column = cell.place
  while (column >= (rows[row] ?? Infinity)) column -= rows[row++] ?? 0
  const many = rows[row] ?? 1
  const deep = (canvas.height - 2 * margin - gap * (rows.length - 1)) / rows.length
  const top = margin + row * (deep + gap)
  const lean = Math.tan((slant * Math.PI) / 180) * (deep / 2)
  const half = gap / 2 / Math.cos((slant * Math.PI) / 180)
  const edge = (line: number): [number, number] => {
    if (line === 0) return [margin, margin]
    if (line === many) return [canvas.width - margin, canvas.width - margin]
    const x = margin + ((canvas.width - 2 * margin) * line) / many
    const side = line === column ? half : -half
    return [x + lean + side, x - lean + side]
  }
  const [leftTop, leftBottom] = edge(column)
  const [rightTop, rightBottom] = edge(column + 1)
  return [
    { x: leftTop, y: top },
    { x: rightTop, y: top },
    { x: rightBottom, y: top + deep },
    { x: leftBottom, y: top + deep },
  ]
}

/** The rectangle around the cell, which a picture is fitted into. */
export function cellBox(cell: Cell, canvas: Size): { left: number; top: number } & Size {
  const corners = cellCorners(cell, canvas)
  const xs = corners.map(({ x }) => x)
  const ys = corners.map(({ y }) => y)
  const [left, top] = [Math.min(...xs), Math.min(...ys)]
  return { left, top, width: Math.max(...xs) - left, height: Math.max(...ys) - top }
}
