import { expect, test } from 'vitest'
import type { VideoClip } from '@/api/types'
import cases from '@/motion/speed.cases.json'
import { reachOf } from './trimming'
import { insidePoints, pointsOf, sourceOffset, speedAt } from '@/motion/speed'

const ramp = [
  { at: 0, speed: 0.5 },
  { at: 400, speed: 2.5 },
]

test('a plain clip runs as it is', () => {
  expect(sourceOffset(pointsOf(undefined), true, 123)).toBe(123)
})

test('the source passed is the area under the speed', () => {
  for (const soft of [true, false]) {
    let sum = 0
    for (let t = 0; t < 300; t += 0.5) sum += speedAt(ramp, soft, t + 0.25) * 0.5
    expect(sourceOffset(ramp, soft, 300)).toBeCloseTo(sum, 1)
    expect(sourceOffset(ramp, soft, 400)).toBeCloseTo(600, 6)
    expect(sourceOffset(ramp, soft, 500)).toBeCloseTo(850, 6)
  }
})

test('before the first point its speed counts', () => {
  expect(
    sourceOffset(
      [
        { at: 100, speed: 2 },
        { at: 200, speed: 4 },
      ],
      false,
      50,
    ),
  ).toBe(100)
})

test('a trimmed curve gets points at its ends', () => {
  const points = insidePoints(
    [
      { at: -100, speed: 1 },
      { at: 300, speed: 5 },
    ],
    false,
    200,
  )
  expect(points).toEqual([
    { at: 0, speed: 2, soft: null },
    { at: 200, speed: 4 },
  ])
})

test.each(cases.map(({ clip, at, reach }) => [clip.id, clip, at, reach] as const))(
  'speed and room of %s are what the core says',
  (_, clip, at, reach) => {
    const video = clip as unknown as VideoClip
    for (const [tick = 0, offset = 0] of at) {
      const found = sourceOffset(pointsOf(video.speed), video.speed?.soft ?? true, tick)
      expect(Math.abs(found - offset)).toBeLessThanOrEqual(1)
    }
    expect(reachOf(video, 705_600_000 / 30)).toEqual(reach.map((far) => far ?? Infinity))
  },
)
