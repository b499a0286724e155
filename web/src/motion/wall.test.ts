import { expect, test } from 'vitest'
import { gridOf, shapeOf } from './wall'

const [upright, wide] = [
  { width: 1080, height: 1920 },
  { width: 1920, height: 1080 },
]

test('pictures are as large as their place lets them be', () => {
  const column = { width: 384, height: 680 }
  expect([2, 3, 4, 9].map((count) => gridOf(count, upright, column))).toEqual([
    { columns: 2, rows: 1 },
    { columns: 2, rows: 2 },
    { columns: 2, rows: 2 },
    { columns: 3, rows: 3 },
  ])
  const phone = { width: 390, height: 380 }
  expect(gridOf(3, upright, phone)).toEqual({ columns: 3, rows: 1 })
  expect(gridOf(4, wide, phone)).toEqual({ columns: 2, rows: 2 })
  expect(gridOf(1, wide, phone)).toEqual({ columns: 1, rows: 1 })
})

test('a wall is as large as its cells', () => {
  expect(shapeOf({ columns: 2, rows: 3 }, wide)).toEqual({ width: 3840, height: 3240 })
})
