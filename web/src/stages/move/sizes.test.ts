import { expect, test } from 'vitest'
import { grownTogether } from './sizes'

test('sides that go together keep their proportion, whichever is set', () => {
  expect(grownTogether([1, 0.5], 0, 2)).toEqual([2, 1])
  expect(grownTogether([1, 0.5], 1, 1)).toEqual([2, 1])
})

test('what was nothing grows on both sides again', () => {
  expect(grownTogether([0, 0], 0, 0.8)).toEqual([0.8, 0.8])
})
