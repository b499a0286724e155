import { expect, test } from 'vitest'
import {
  boxAround,
  isSound,
  middleOf,
  shifted,
  spotted,
  stretched,
  swung,
  withCorner,
  withinQuad,
  type Quad,
  type Spot,
} from './quads'

const box = boxAround([0.1, -0.2], 0.05, 0.1)

test('a box goes around its middle and is moved with it', () => {
  expect(middleOf(box).map((one) => Number(one.toFixed(6)))).toEqual([0.1, -0.2])
  expect(middleOf(shifted(box, 0.1, 0.2)).map((one) => Number(one.toFixed(6)))).toEqual([0.2, -0])
  expect(isSound(box)).toBe(true)
})

test('a corner that is swung comes to the finger, the middle stays', () => {
  const quad = swung(box, 2, [0.3, -0.1])
  expect(quad[2]?.[0]).toBeCloseTo(0.3)
  expect(quad[2]?.[1]).toBeCloseTo(-0.1)
  expect(middleOf(quad)[0]).toBeCloseTo(0.1)
  const side = (a: number, b: number) =>
    Math.hypot(quad[a]![0] - quad[b]![0], quad[a]![1] - quad[b]![1])
  expect(side(0, 1) / side(1, 2)).toBeCloseTo(0.5)
})

test('a box stays upright and is never nothing', () => {
  expect(stretched(box, [0.1, -0.5], 0.01)).toEqual(boxAround(middleOf(box), 0.01, 0.3))
})

test('a dent, or a quad turned over, goes around nothing', () => {
  expect(isSound(withCorner(box, 2, [0.06, -0.28]))).toBe(false)
  expect(isSound([...box].reverse() as typeof box)).toBe(false)
})

const near = (one: Spot, other: Spot) => {
  expect(one[0]).toBeCloseTo(other[0])
  expect(one[1]).toBeCloseTo(other[1])
}

test('spots lie in a box with room around them, and come back from their shares of it', () => {
  const spots: Spot[] = [
    [0.1, 0.2],
    [-0.3, 0.2],
    [0, 0.2],
  ]
  const { quad, shares } = spotted(spots, false)
  expect(isSound(quad)).toBe(true)
  shares.forEach((share, index) => near(withinQuad(quad, share), spots[index]!))
  expect(Math.min(...shares.flat())).toBeGreaterThan(0)
})

test('four spots of what leans are its corners, whatever their order', () => {
  const corners: Quad = [
    [-0.2, -0.1],
    [0.3, -0.2],
    [0.25, 0.3],
    [-0.1, 0.2],
  ]
  const { quad, shares } = spotted([corners[2], corners[0], corners[3], corners[1]], true)
  expect(quad).toEqual(corners)
  shares.forEach((share, index) => near(withinQuad(quad, share), corners[index]!))
})

test('a share of a thing is found in perspective', () => {
  // As x / (1 + 0.5 x) brings the unit square nearer on its right.
  const at = ([u, v]: Spot): Spot => [(2 * u) / (1 + 0.5 * u), (v * 2 - u) / (1 + 0.5 * u)]
  const quad = (
    [
      [0, 0],
      [1, 0],
      [1, 1],
      [0, 1],
    ] as Spot[]
  ).map(at) as Quad
  for (const share of [
    [0.5, 0.5],
    [0.2, 0.9],
    [1, 0.3],
  ] as Spot[])
    near(withinQuad(quad, share), at(share))
})
