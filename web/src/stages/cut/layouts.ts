import { t } from '@/texts'

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
  layout(t('cut.layouts.twoSideBySide'), [2]),
  layout(t('cut.layouts.twoStacked'), [1, 1]),
  layout(t('cut.layouts.threeSideBySide'), [3]),
  layout(t('cut.layouts.threeStacked'), [1, 1, 1]),
  layout(t('cut.layouts.oneAboveTwo'), [1, 2]),
  layout(t('cut.layouts.twoAboveOne'), [2, 1]),
  layout(t('cut.layouts.oneBesideTwo'), [1, 2], true),
  layout(t('cut.layouts.four'), [2, 2]),
  layout(t('cut.layouts.twoAndThree'), [2, 3]),
  layout(t('cut.layouts.six'), [2, 2, 2]),
  layout(t('cut.layouts.seven'), [2, 3, 2]),
  layout(t('cut.layouts.eight'), [2, 2, 2, 2]),
  layout(t('cut.layouts.nine'), [3, 3, 3]),
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
