import { expect, test } from 'vitest'
import type { Clip, Track } from '@/api/types'
import { lateBy } from './sync'

const FRAME = 705_600_000 / 30
const rate = { num: 30, den: 1 }
const speed = { points: [{ at: 0, speed: 1 }], soft: true }
const video = {
  kind: 'video',
  id: 'v',
  media: 'm',
  start: 30 * FRAME,
  source_in: 10 * FRAME,
  speed,
}
const tracks = [{ clips: [video] }] as unknown as Track[]

function sound(change: object): Clip {
  const own = { kind: 'sound', media: 'm', rides: 'v', start: 0, source_in: 0, speed }
  return { ...own, ...change } as unknown as Clip
}

test('a sound says by how many frames it is off', () => {
  expect(lateBy(sound({ start: 30 * FRAME, source_in: 10 * FRAME }), tracks, rate)).toBe(0)
  expect(lateBy(sound({ start: 33 * FRAME, source_in: 10 * FRAME }), tracks, rate)).toBe(3)
  expect(lateBy(sound({ start: 30 * FRAME, source_in: 12 * FRAME }), tracks, rate)).toBe(-2)
})

test('other sounds have nothing to be in step with', () => {
  expect(lateBy(sound({ media: 'other', start: 99 * FRAME }), tracks, rate)).toBe(0)
  expect(lateBy(sound({ rides: null, start: 99 * FRAME }), tracks, rate)).toBe(0)
  const fast = { points: [{ at: 0, speed: 2 }], soft: true }
  expect(lateBy(sound({ speed: fast, start: 99 * FRAME }), tracks, rate)).toBe(0)
})
