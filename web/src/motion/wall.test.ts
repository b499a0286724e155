import { expect, test } from 'vitest'
import { gridOf, shapeOf } from './wall'

const [upright, wide] = [
  { width: 1080, height: 1920 },
  { width: 1920, height: 1080 },
]

test('pictures are as large as their place lets them be', () => {
  const column = { width: 384, height: 680 }
  expect([2, 3, 4, 9].map((count) => gridOf(count, upright, column))).toEqual([
    { columns: 2, rows: 1, beside: 0 },
    { columns: 2, rows: 2, beside: 0 },
    { columns: 2, rows: 2, beside: 0 },
    { columns: 3, rows: 3, beside: 0 },
  ])
  const phone = { width: 390, height: 380 }
  expect(gridOf(3, upright, phone)).toEqual({ columns: 3, rows: 1, beside: 0 })
  expect(gridOf(4, wide, phone)).toEqual({ columns: 2, rows: 2, beside: 0 })
  expect(gridOf(1, wide, phone)).toEqual({ columns: 1, rows: 1, beside: 0 })
})

test('a wall is as large as its cells', () => {
  expect(shapeOf({ columns: 2, rows: 3, beside: 0 }, wide)).toEqual({ width: 3840, height: 3240 })
})

test('the film stands beside them, as high as all their rows', () => {
  const screen = { width: 820, height: 440 }
  const grid = gridOf(4, upright, screen, true)
  expect(grid).toEqual({ columns: 4, rows: 1, beside: 1 })
  expect(gridOf(9, upright, screen, true)).toEqual({ columns: 5, rows: 2, beside: 2 })
  expect(shapeOf(gridOf(4, wide, screen, true), wide)).toEqual({ width: 7680, height: 2160 })
})
