import { expect, test } from 'vitest'
import { gridSpots, withPointsMoved, type GridWarp, type Warp } from './warps'

const grid = {
  kind: 'grid',
  columns: 2,
  rows: 1,
  points: [
    [0, 0],
    [0, 0.1],
    [0, 0],
    [0, 0],
    [0.05, 0],
    [0, 0],
  ],
} as unknown as GridWarp

test('points of a grid lie evenly but for how far they were moved', () => {
  expect(gridSpots(grid, 2, 0)).toEqual([
    [-1, -0.5],
    [0, -0.4],
    [1, -0.5],
    [-1, 0.5],
    [0.05, 0.5],
    [1, 0.5],
  ])
})

test('points of a grid over an area lie in that', () => {
  const within = { ...grid, area: [-0.5, 0, 0.5, 0.4] as [number, number, number, number] }
  expect(gridSpots(within, 2, 0).map(([x, y]) => [x, Number(y.toFixed(6))])).toEqual([
    [-0.5, 0],
    [0, 0.1],
    [0.5, 0],
    [-0.5, 0.4],
    [0.05, 0.4],
    [0.5, 0.4],
  ])
})

test('several are moved together, the others stay', () => {
  const values = withPointsMoved(grid, 0, ['0', '4'], [0.1, -0.2])
  expect((values['warp/points'] as number[][])[0]).toEqual([0.1, -0.2])
  expect((values['warp/points'] as number[][])[4]).toEqual([0.15, -0.2])
  expect((values['warp/points'] as number[][])[1]).toEqual([0, 0.1])
})

test('pins that have keys are given one, others a place', () => {
  const keyed = { keys: [{ at: 0, value: [0, 0] }] }
  const warp = {
    kind: 'pins',
    pins: [
      { id: 'a', rest: [0, 0], at: keyed },
      { id: 'b', rest: [1, 1], at: [1, 1] },
      { id: 'c', rest: [2, 2], at: [2, 2] },
    ],
  } as unknown as Warp
  expect(withPointsMoved(warp, 5, ['a', 'b'], [1, 2])).toEqual({
    'warp/pins/a/at': { keys: [keyed.keys[0], { at: 5, value: [1, 2] }] },
    'warp/pins/b/at': [2, 3],
  })
})
