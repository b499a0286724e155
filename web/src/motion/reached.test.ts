import { expect, test } from 'vitest'
import { reached } from './reached'

const one = { views: [{ at: 20 }], first: 10, last: 100 }

test('from the view back first, then on', () => {
  const told = [0, 0.05, 0.5, 1].map((share) => reached(one, share))
  expect(told.map(({ first, last }) => [first, last])).toEqual([
    [20, 20],
    [16, 20],
    [10, 55],
    [10, 100],
  ])
})

test('what lies between two views is always followed', () => {
  const two = { views: [{ at: 60 }, { at: 20 }], first: 10, last: 100 }
  expect(reached(two, 0)).toMatchObject({ first: 20, last: 60 })
  expect(reached(two, 50 / 130)).toMatchObject({ first: 10, last: 100 })
  expect(reached(two, 1)).toMatchObject({ first: 10, last: 100 })
})
