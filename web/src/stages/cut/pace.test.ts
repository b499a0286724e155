import { expect, test } from 'vitest'
import type { PacedClip } from '@/api/types'
import { sourceOffset } from '@/timeline/speed'
import { factorOf, lengthAfter, shapePoints, speedFor } from './pace'

const clip = { kind: 'video', length: 4000 } as unknown as PacedClip

test('content that stays makes each stretch as long as its mean speed says', () => {
  const points = [
    { at: 0, speed: 1 },
    { at: 2000, speed: 4 },
    { at: 4000, speed: 1 },
  ]
  expect(lengthAfter(clip, points)).toBeCloseTo(1600, 6)
  expect(lengthAfter(clip, [{ at: 0, speed: 2 }])).toBeCloseTo(2000, 6)
})

test('a ramp that turns round has no such length', () => {
  expect(
    lengthAfter(clip, [
      { at: 0, speed: 1 },
      { at: 4000, speed: -1 },
    ]),
  ).toBeNull()
})

test('a point of the source view lands where it was dragged', () => {
  const points = shapePoints(
    [
      [0, 1],
      [0.5, 1],
      [1, 1],
    ],
    4000,
  )
  const speed = speedFor(points, 1, 3000, true)
  const moved = points.map((point, i) => (i === 1 ? { ...point, speed } : point))
  expect(sourceOffset(moved, true, 2000)).toBeCloseTo(3000, 6)
})

test('one factor or none', () => {
  expect(factorOf(clip)).toBe(1)
  const ramp = {
    ...clip,
    speed: {
      points: shapePoints(
        [
          [0, 1],
          [1, 2],
        ],
        10,
      ),
      soft: true,
    },
  }
  expect(factorOf(ramp as never)).toBeNull()
})
