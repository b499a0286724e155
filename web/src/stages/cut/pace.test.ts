import { expect, test } from 'vitest'
import type { PacedClip } from '@/api/types'
import { steadySpeed } from '@/motion/speed'
import { lengthAfter, rampStep, shapePoints } from './pace'

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

test('what turns round keeps its length, whatever was to stay', () => {
  const turning = [
    { at: 0, speed: 1 },
    { at: 4000, speed: -1 },
  ]
  expect(rampStep(clip, turning, true, 'content')).toMatchObject({ keep: 'length' })
  const faster = [{ at: 0, speed: 2 }]
  expect(rampStep(clip, faster, true, 'content')).toMatchObject({ keep: 'content' })
})

test('one factor or none', () => {
  expect(steadySpeed(undefined)).toBe(1)
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
  expect(steadySpeed(ramp.speed as never)).toBeNull()
})
