import { expect, test } from 'vitest'
import { boxes, cellsOf, LAYOUTS } from './layouts'

test('there are layouts for two to nine cells, none twice', () => {
  expect(new Set(LAYOUTS.map(cellsOf))).toEqual(new Set([2, 3, 4, 5, 6, 7, 8, 9]))
  expect(new Set(LAYOUTS.map((one) => one.id)).size).toBe(LAYOUTS.length)
})

test('small pictures of layouts fill their square', () => {
  for (const { rows, upright } of LAYOUTS) {
    const all = boxes(rows, upright)
    const area = all.reduce((sum, box) => sum + box.width * box.height, 0)
    expect(area).toBeCloseTo(1, 9)
  }
})
