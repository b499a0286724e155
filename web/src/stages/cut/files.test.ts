import { expect, test } from 'vitest'
import type { Schemas } from '@/api/client'
import { TICKS_PER_SECOND as SECOND, type MulticamClip } from '@/api/types'
import { filesOf, gainsOf, linedOf, takenOut } from './files'

const file = (media: string, start: number, source_in: number) => ({
  kind: 'video',
  media,
  start,
  source_in,
  source_length: 9 * SECOND,
})
const clip = {
  tracks: [
    { clips: [{ kind: 'group', start: 0, tracks: [{ clips: [file('a', 0, 0)] }] }] },
    {
      clips: [
        {
          kind: 'group',
          start: 2 * SECOND,
          tracks: [{ clips: [file('b', 0, 5), file('c', SECOND, 0)] }],
        },
      ],
    },
  ],
} as unknown as MulticamClip
const found = (at: number | null): Schemas['Found'][] => [
  { angle: 0, file: 0, at: 0, way: 'first', confidence: 1, drift: 0, middle: 0 },
  {
    angle: 1,
    file: 0,
    at,
    way: at === null ? '' : 'sound',
    confidence: 0.9,
    drift: 1e-4,
    middle: 0,
  },
]

test('the first marker of a file is told in its own time', () => {
  const marked = {
    ...file('b', SECOND, 5),
    markers: [{ at: 900 }, { at: 70 }, { at: 3, beat: 'bar' }],
  }
  const group = { kind: 'group', start: 0, tracks: [{ clips: [marked] }] }
  const clip = { tracks: [{ clips: [group] }] } as unknown as MulticamClip
  expect(filesOf(clip).map(({ marker }) => marker)).toEqual([75])
})

test('files lie where their own beginning would be', () => {
  expect(filesOf(clip).map(({ media, angle, file, at }) => [media, angle, file, at])).toEqual([
    ['a', 0, 0, 0],
    ['b', 1, 0, 2 * SECOND - 5],
    ['c', 1, 1, 3 * SECOND],
  ])
})

test('what was found is told, and how far it was moved since', () => {
  const files = filesOf(clip)
  const told = (at: number | null) => linedOf(files[1]!, files, found(at))
  expect(told(2 * SECOND - 5)).toEqual({ way: 'sound', confidence: 0.9, off: 0, gains: 6 })
  expect(told(SECOND)?.off).toBe(SECOND - 5)
  expect(told(null)).toEqual({ way: '', confidence: 0, off: 0, gains: 0 })
  expect(linedOf(files[2]!, files, found(0))).toBeNull()
})

test('a file whose drift is taken out lies where it was found, at the moment that lies right', () => {
  const files = filesOf(clip)
  const middle = 4 * SECOND
  const told = found(2 * SECOND).map((one) => ({ ...one, middle: one.angle ? middle : 0 }))
  const from = 5
  const evened = {
    ...files[1]!,
    from,
    pace: 1.0001,
    start: 2 * SECOND + middle - (middle - from) / 1.0001,
  }
  expect(linedOf(evened, files, told)?.off).toBe(0)
  expect(gainsOf(takenOut(evened))).toBe(6)
  expect([1, 2, null].map((pace) => takenOut({ ...evened, pace }))).toEqual([0, 0, 0])
})
