import { expect, test } from 'vitest'
import { rowOf } from './rows'

const slider = { name: 'soft_edge', control: 'slider', default: 0.5, step: 0.01, high: 1 }

test('a share is shown in percent, a length in its unit', () => {
  const [share] = rowOf(slider as never, undefined)
  expect(share).toMatchObject({ label: 'Soft edge', value: 0.5, factor: 100, unit: '%', digits: 0 })
  const [length] = rowOf({ ...slider, unit: 'px', high: 100, step: 0.5 } as never, 3)
  expect(length).toMatchObject({ value: 3, factor: 1, unit: 'px', digits: 1 })
})

test('a point has a field for each of its numbers', () => {
  const point = { name: 'size', control: 'slider', default: [1, 2], unit: 'px', step: 1 }
  const rows = rowOf(point as never, [5, 6])
  expect(rows.map((row) => [row.label, row.value, row.rest])).toEqual([
    ['Width', 5, 1],
    ['Height', 6, 2],
  ])
})
