import { expect, test } from 'vitest'
import { snap } from './snapping'

const targets = (...ticks: number[]) => ticks.map((tick) => ({ tick, name: `at ${tick}` }))

test('the nearest target within reach wins, whichever edge it is near, and tells its name', () => {
  const found = snap([100, 200], targets(90, 205, 500), 12)
  expect(found).toEqual({ tick: 205, name: 'at 205', by: 5 })
  expect(snap([100, 200], targets(90), 12)).toEqual({ tick: 90, name: 'at 90', by: -10 })
})

test('nothing within reach draws nothing', () => {
  expect(snap([100], targets(120), 12)).toBeNull()
  expect(snap([], targets(120), 12)).toBeNull()
})
