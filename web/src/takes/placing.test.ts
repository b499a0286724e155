import { expect, test } from 'vitest'
import type { Take } from '@/api/types'
import { markedPart, partsOf, placeStep, STILL_LENGTH } from './placing'

const SECOND = 705_600_000

function take(kind: 'video' | 'still' | 'sound', more: Partial<Take> = {}): Take {
  const facts = { kind, length: kind === 'still' ? 0 : 10 * SECOND }
  return { name: 'launch.mp4', media: 'm', facts, mark_in: null, mark_out: null, ...more } as Take
}

test('without marks all of a take is meant', () => {
  expect(markedPart(take('video'))).toEqual({ from: 0, to: 10 * SECOND })
  expect(markedPart(take('still'))).toEqual({ from: 0, to: STILL_LENGTH })
})

test('marks bound the part, and never beyond the take', () => {
  const marked = take('video', { mark_in: 2 * SECOND, mark_out: 99 * SECOND })
  expect(markedPart(marked)).toEqual({ from: 2 * SECOND, to: 10 * SECOND })
})

test('a step names the take, its length and its marks', () => {
  const marked = take('video', { mark_in: 2 * SECOND, mark_out: 5 * SECOND })
  expect(placeStep(marked, 'push', 7)).toEqual({
    kind: 'place_takes',
    mode: 'push',
    at: 7,
    takes: [
      {
        kind: 'video',
        name: 'launch.mp4',
        media: 'm',
        length: 10 * SECOND,
        mark_in: 2 * SECOND,
        mark_out: 5 * SECOND,
      },
    ],
  })
})

test('a take that has not been looked at cannot be placed', () => {
  const unseen = take('video', { facts: null })
  expect(placeStep(unseen, 'end', 0)).toBeNull()
  expect(partsOf([unseen, take('still')])).toHaveLength(1)
})
