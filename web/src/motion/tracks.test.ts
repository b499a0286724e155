import { expect, test } from 'vitest'
import { doubtsOf, growth, momentAt } from './tracks'

const found = {
  ticks: [0, 100_000, 200_000, 300_000, 400_000],
  quads: [0, 1, 2, 3, 4].map((n) => [n, 0, n + 1, 0, n + 1, 1, n, 1]),
  sure: [255, 100, 0, 255, 120],
  why: [null, 'left' as const, 'left' as const, null, null],
}

test('the frame that is shown at a tick tells where it is; outside, the nearest', () => {
  expect(momentAt(found, 150_000).quad[0]).toEqual([1, 0])
  expect(momentAt(found, 199_000).quad[0]).toEqual([2, 0])
  expect(momentAt(found, -5).quad[1]).toEqual([1, 0])
  expect(momentAt(found, 9e9)).toEqual({
    quad: [
      [4, 0],
      [5, 0],
      [5, 1],
      [4, 1],
    ],
    sure: 120,
  })
})

test('doubts are told as stretches, with whether it was lost, and why as far as that is known', () => {
  expect(doubtsOf(found)).toEqual([
    { from: 100_000, to: 200_000, lost: true, why: 'left' },
    { from: 400_000, to: 400_000, lost: false, why: null },
  ])
})

test('how large it becomes is told by the longer side', () => {
  const { quad } = momentAt(found, 0)
  expect(growth(found, quad)).toBe(1)
  const near = [...found.quads, [0, 0, 3, 0, 3, 2, 0, 2]]
  expect(growth({ quads: near }, quad)).toBe(3)
  expect(
    growth({ quads: found.quads }, [
      [9, 9],
      [9, 9],
      [9, 9],
      [9, 9],
    ]),
  ).toBe(1)
})
