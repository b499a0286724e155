import { expect, test } from 'vitest'
import { gainsLike } from './levels'

test('all become as loud as one, within what a gain can do', () => {
  expect(gainsLike(1, [-23, -18.04, -40, -12])).toEqual([5, 0, 12, -6])
})

test('what is silent, or not known, is left alone', () => {
  expect(gainsLike(0, [-20, null, -90])).toEqual([0, 0, 0])
  expect(gainsLike(0, [null, -20])).toEqual([0, 0])
})
