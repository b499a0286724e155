import { expect, test } from 'vitest'
import { sourceOffset, type Point } from '@/motion/speed'
import { bendsBetween, knotsOf, throughKnots, withKnot, withKnotSpeed } from './knots'

const point = (at: number, speed: number, soft: boolean | null = null): Point => ({
  at,
  speed,
  soft,
  bends: false,
})
const RAMP = [point(0, 1), point(4000, 2, false), point(10000, 0.5)]

test.each([true, false])(
  'a ramp read as knots and laid through them is the same (soft: %s)',
  (soft) => {
    expect(throughKnots(knotsOf(RAMP, soft))).toEqual(RAMP)
  },
)

test.each([true, false])(
  'a knot that is moved leaves all others where they are (soft: %s)',
  (soft) => {
    const before = knotsOf(RAMP, soft)
    const moved = withKnot(before, 1, { at: 5000, source: 5200 }, 10)
    const points = throughKnots(moved)
    expect(points.filter((one) => one.bends)).toHaveLength(2)
    const after = knotsOf(points, soft)
    expect(after[1]?.source).toBeCloseTo(5200, 0)
    expect(after[2]?.source).toBeCloseTo(before[2]?.source ?? 0, 0)
    expect(after.map((knot) => knot.speed)).toEqual([1, 2, 0.5])
    expect(knotsOf(throughKnots(after), soft)).toHaveLength(3)
  },
)

test('a handle pulled level makes the picture stand at its knot, upright makes it race', () => {
  const before = knotsOf(RAMP, true)
  for (const speed of [0, 3]) {
    const after = knotsOf(throughKnots(withKnotSpeed(before, 1, speed)), true)
    expect(after[1]?.speed).toBe(speed)
    expect(after.map((knot) => Math.round(knot.source))).toEqual(
      before.map((knot) => Math.round(knot.source)),
    )
  }
})

test('what goes forwards is not turned round: knots go as far as speeds can follow', () => {
  const before = knotsOf(RAMP, true)
  for (const source of [-90000, 90000]) {
    const points = throughKnots(withKnot(before, 1, { at: 4000, source }, 10))
    expect(Math.min(...points.map((one) => one.speed))).toBeGreaterThanOrEqual(0)
    expect(Math.max(...points.map((one) => one.speed))).toBeLessThanOrEqual(20)
  }
  const steep = throughKnots(withKnotSpeed(before, 1, 20))
  expect(Math.min(...steep.map((one) => one.speed))).toBeGreaterThanOrEqual(0)
})

test('the first knot stays; the last one only goes along the source', () => {
  const before = knotsOf(RAMP, true)
  expect(withKnot(before, 0, { at: 500, source: 500 }, 10)).toBe(before)
  const last = withKnot(before, 2, { at: 7000, source: 12000 }, 10)[2]
  expect([last?.at, last?.source]).toEqual([10000, 12000])
})

test('points that bend stand halfway again after another was moved', () => {
  const points = [point(0, 1), { at: 200, speed: 3, bends: true }, point(1000, 1)]
  expect(bendsBetween(points)[1]?.at).toBe(500)
  expect(sourceOffset(bendsBetween(points), true, 1000)).toBeCloseTo(2000)
})
