import type { Cell } from '@/api/types'
import { bordersOf } from '@/picture/cells'
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
export function boxes(rows: number[], upright: boolean, shares: Shares = {}) {
  const deep = bordersOf(shares.row_shares, rows.length)
  return rows.flatMap((count, row) => {
    const wide = bordersOf(shares.cell_shares?.[row], count)
    return Array.from({ length: count }, (_, column) => {
      const [x, y] = upright
        ? [part(deep, row), part(wide, column)]
        : [part(wide, column), part(deep, row)]
      return { x: x.at, y: y.at, width: x.long, height: y.long }
    })
  })
}

type Shares = Partial<Pick<Cell, 'row_shares' | 'cell_shares'>>

function part(borders: number[], index: number) {
  const [at = 0, end = 1] = borders.slice(index)
  return { at, long: end - at }
}
