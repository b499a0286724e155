import type { Cell } from '@/api/types'
import type { Point, Size } from './placing'

/** The corners of a split-screen cell on the canvas, clockwise (as the server cuts). */
export function cellCorners(cell: Cell, canvas: Size): Point[] {
  // Of cells one above the other the lines between them lean.
  if (cell.slant && cell.rows.length > 1 && Math.max(...cell.rows) === 1) {
    const asRow = {
      rows: [cell.rows.length],
      cell_shares: cell.row_shares?.length ? [cell.row_shares] : [],
      row_shares: [],
      upright: !cell.upright,
    }
    return cellCorners({ ...cell, ...asRow }, canvas)
  }
  if (cell.upright) {
    const turned = { width: canvas.height, height: canvas.width }
    const lying = cellCorners({ ...cell, upright: false }, turned)
    return lying.map(({ x, y }) => ({ x: y, y: x })).reverse()
  }
  const { gap, margin, slant, rows } = cell
  const { row, column } = rowAndColumn(rows, cell.place)
  const many = rows[row] ?? 1
  const high = canvas.height - 2 * margin - gap * (rows.length - 1)
  const [from = 0, to = 1] = bordersOf(cell.row_shares, rows.length).slice(row)
  const top = margin + high * from + row * gap
  const deep = high * (to - from)
  const [left, right] = [margin, canvas.width - margin]
  const borders = bordersOf(cell.cell_shares?.[row], many)
  const room = right - left - gap * (many - 1)
  const radians = (slant * Math.PI) / 180
  const lean = Math.tan(radians)
  let shape: Point[] = [
    { x: left, y: top },
    { x: right, y: top },
    { x: right, y: top + deep },
    { x: left, y: top + deep },
  ]
  for (const [line, side] of [
    [column, 1],
    [column + 1, -1],
  ] as const) {
    if (line <= 0 || line >= many) continue
    const middle = left + room * (borders[line] ?? 1) + gap * (line - 0.5)
    const at = middle + (side * gap) / 2 / Math.cos(radians)
    const border = at + lean * (top + deep / 2)
    shape = clipped(shape, -side, -side * lean, -side * border)
  }
  return shape
}

export function rowAndColumn(rows: number[], place: number): { row: number; column: number } {
  let row = 0
  let column = place
  while (column >= (rows[row] ?? Infinity)) column -= rows[row++] ?? 0
  return { row, column }
}

/** From 0 to 1, where each of some parts begins and the last one ends; without shares all alike. */
export function bordersOf(shares: number[] | undefined, count: number): number[] {
  const parts = shares?.length ? shares : Array.from({ length: count }, () => 1)
  const whole = parts.reduce((sum, one) => sum + one, 0)
  let gone = 0
  return [0, ...parts.map((one) => (gone += one) / whole)]
}

/** The part of a convex shape where `a * x + b * y <= most`. */
function clipped(shape: Point[], a: number, b: number, most: number): Point[] {
  return shape.flatMap((here, index) => {
    const before = shape.at(index - 1) ?? here
    const was = a * before.x + b * before.y - most
    const is = a * here.x + b * here.y - most
    const share = was / (was - is)
    const between = {
      x: before.x + (here.x - before.x) * share,
      y: before.y + (here.y - before.y) * share,
    }
    return [...(was <= 0 !== is <= 0 ? [between] : []), ...(is <= 0 ? [here] : [])]
  })
}

/** The rectangle around the cell, which a picture is fitted into. */
export function cellBox(cell: Cell, canvas: Size): { left: number; top: number } & Size {
  const corners = cellCorners(cell, canvas)
  const xs = corners.map(({ x }) => x)
  const ys = corners.map(({ y }) => y)
  const [left, top] = [Math.min(...xs), Math.min(...ys)]
  return { left, top, width: Math.max(...xs) - left, height: Math.max(...ys) - top }
}
