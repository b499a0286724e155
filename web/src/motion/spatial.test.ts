import { expect, test } from 'vitest'
import { spotBetween, type Vector } from './spatial'

const kappa = (4 / 3) * (Math.SQRT2 - 1) * 100
const round = (share: number): Vector =>
  spotBetween([100, 0], [0, kappa], [kappa, 0], [0, 100], share)

test('a quarter of a circle is gone round at an even angle', () => {
  for (const share of [0, 0.2, 0.5, 0.9, 1]) {
    const [x, y] = round(share)
    expect(Math.hypot(x, y)).toBeCloseTo(100, 0)
    expect((Math.atan2(y, x) * 180) / Math.PI).toBeCloseTo(90 * share, 1)
  }
})

test('without handles it is straight, and what overshoots goes straight on', () => {
  expect(spotBetween([0, 0], [0, 0], [0, 0], [10, 20], 1.5)).toEqual([15, 30])
  const [x, y] = round(1.1)
  expect(x).toBeCloseTo(-5 * Math.PI, 0)
  expect(y).toBeCloseTo(100, 0)
})
