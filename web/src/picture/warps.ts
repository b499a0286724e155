/** Points that bend a layer: where those of a grid are, and what it is when some are moved. */
import type { PicturedClip } from '@/api/types'
import { changedAt, valueAt } from '@/motion/keys'

export type Pair = [number, number]
export type Warp = NonNullable<PicturedClip['warp']>
export type Area = [number, number, number, number]
export type GridWarp = Extract<Warp, { kind: 'grid' }>

export const rounded = (value: number) => Math.round(value * 10000) / 10000

const ROOM = 0.01

/** An area with a little room around it. */
export const roomAround = ([left, top, right, bottom]: Area): Area => [
  left - ROOM,
  top - ROOM,
  right + ROOM,
  bottom + ROOM,
]

/** The points of a grid at a tick, row by row; `aspect` is the picture's width for a height of 1. */
export function gridSpots(grid: GridWarp, aspect: number, tick: number): Pair[] {
  const [columns, rows] = [grid.columns ?? 3, grid.rows ?? 3]
  const [left, top, right, bottom] = grid.area ?? [-aspect / 2, -0.5, aspect / 2, 0.5]
  return (valueAt(grid.points, tick) as Pair[]).map(([dx, dy], index) => {
    const [column, row] = [index % (columns + 1), Math.floor(index / (columns + 1))]
    const x = left + (column / columns) * (right - left)
    return [x + dx, top + (row / rows) * (bottom - top) + dy]
  })
}

/** Values by path after some of its points, pins by id or a grid's by number, were moved. */
export function withPointsMoved(
  warp: Warp,
  tick: number,
  ids: string[],
  [byX, byY]: Pair,
): Record<string, unknown> {
  const moved = ([x, y]: Pair): Pair => [rounded(x + byX), rounded(y + byY)]
  if (warp.kind === 'grid') {
    const offsets = (valueAt(warp.points, tick) as Pair[]).map((one, index) =>
      ids.includes(`${index}`) ? moved(one) : one,
    )
    return { 'warp/points': changedAt(warp.points, tick, offsets) }
  }
  const pins = (warp.pins ?? []).filter((pin) => ids.includes(pin.id ?? ''))
  const values = pins.map((pin) => [
    `warp/pins/${pin.id}/at`,
    changedAt(pin.at, tick, moved(valueAt(pin.at, tick) as Pair)),
  ])
  return Object.fromEntries(values) as Record<string, unknown>
}
