/** Layouts of a split screen: how many cells stand in each row (in each column, if upright). */
export interface Layout {
  id: string
  name: string
  rows: number[]
  upright: boolean
}

function layout(name: string, rows: number[], upright = false): Layout {
  return { id: `${rows.join('-')}${upright ? 'u' : ''}`, name, rows, upright }
}

export const LAYOUTS: Layout[] = [
  layout('Two side by side', [2]),
  layout('Two stacked', [1, 1]),
  layout('Three side by side', [3]),
  layout('Three stacked', [1, 1, 1]),
  layout('One above two', [1, 2]),
  layout('Two above one', [2, 1]),
  layout('One beside two', [1, 2], true),
  layout('Four', [2, 2]),
  layout('Two and three', [2, 3]),
  layout('Six', [2, 2, 2]),
  layout('Seven', [2, 3, 2]),
  layout('Eight', [2, 2, 2, 2]),
  layout('Nine', [3, 3, 3]),
]

export function cellsOf(one: { rows: number[] }): number {
  return one.rows.reduce((sum, count) => sum + count, 0)
}

/** Cells as rectangles of a unit square, for small pictures of a layout. */
export function boxes(rows: number[], upright: boolean) {
  return rows.flatMap((count, row) =>
    Array.from({ length: count }, (_, column) => {
      const across = { at: column / count, long: 1 / count }
      const down = { at: row / rows.length, long: 1 / rows.length }
      const [x, y] = upright ? [down, across] : [across, down]
      return { x: x.at, y: y.at, width: x.long, height: y.long }
    }),
  )
}
