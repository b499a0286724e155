import { expect, test } from 'vitest'
import { gridOf, shapeOf } from './wall'
import cases from './wall.cases.json'

test.each(cases)('$count of $width × $height lie as the core lays them', (one) => {
  const grid = gridOf(one.count, one)
  expect(grid).toEqual({ columns: one.columns, rows: one.rows })
})

test('a wall is as large as its cells', () => {
  const wide = { width: 1920, height: 1080 }
  expect(shapeOf({ columns: 2, rows: 3 }, wide)).toEqual({ width: 3840, height: 3240 })
})
