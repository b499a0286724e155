import { expect, test } from 'vitest'
import { snap } from './snapping'

test('the nearest target within reach wins, whichever edge it is near', () => {
  expect(snap([100, 200], [90, 205, 500], 12)).toEqual({ tick: 205, by: 5 })
  expect(snap([100, 200], [90], 12)).toEqual({ tick: 90, by: -10 })
})

test('nothing within reach draws nothing', () => {
  expect(snap([100], [120], 12)).toBeNull()
  expect(snap([], [120], 12)).toBeNull()
})
