import { expect, test } from 'vitest'
import { TICKS_PER_SECOND as SECOND, type MulticamClip, type Track } from '@/api/types'
import { beatsOf, cutsOn } from './onBeats'

const music = (markers: object[]) =>
  [{ clips: [{ start: SECOND, length: 9 * SECOND, markers }] }] as unknown as Track[]
const clip = {
  start: 0,
  length: 8 * SECOND,
  tracks: [{ kind: 'main' }, { kind: 'sound' }, { kind: 'picture' }],
} as unknown as MulticamClip

test('bars where they are marked, else beats', () => {
  const beat = (at: number, beat = 'beat') => ({ at: at * SECOND, beat })
  const bars = music([beat(0, 'bar'), beat(1), beat(2, 'bar'), { at: 5, beat: '' }])
  expect(beatsOf(bars).map((at) => at / SECOND)).toEqual([1, 3])
  expect(beatsOf(music([beat(1), beat(0), beat(99)])).map((at) => at / SECOND)).toEqual([1, 2])
})

test('angles with a picture take turns, never too quickly', () => {
  const moments = [0.2, 1, 1.2, 3, 9].map((at) => at * SECOND)
  expect(cutsOn(moments, clip)).toEqual([
    { at: SECOND, angle: 2 },
    { at: 3 * SECOND, angle: 0 },
  ])
})
