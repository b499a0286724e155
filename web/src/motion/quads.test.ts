import { expect, test } from 'vitest'
import { boxAround, isSound, middleOf, shifted, stretched, swung, withCorner } from './quads'

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
