import { expect, test } from 'vitest'
import { spread } from './spread'

test('numbers are spread over a stretch, each once', () => {
  expect(spread(0, 100, 5)).toEqual([10, 30, 50, 70, 90])
  expect(spread(7, 7, 5)).toEqual([7])
  expect(spread(0, 2, 5)).toEqual([0, 1, 2])
})
