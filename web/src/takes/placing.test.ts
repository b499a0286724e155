import { expect, test } from 'vitest'
import type { Take } from '@/api/types'
import { markedPart, placeStep, STILL_LENGTH } from './placing'

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

test('a placed part says where in its source it lies', () => {
  const marked = take('video', { mark_in: 2 * SECOND, mark_out: 5 * SECOND })
  expect(placeStep(marked, 'push', 7)).toEqual({
    kind: 'place',
    mode: 'push',
    at: 7,
    clip: {
      kind: 'video',
      name: 'launch',
      media: 'm',
      length: 3 * SECOND,
      source_in: 2 * SECOND,
      source_length: 10 * SECOND,
    },
  })
})

test('a still has a length but no place in a source', () => {
  const step = placeStep(take('still', { name: 'kite.cutout.png' }), 'end', 0)
  expect(step).toMatchObject({ clip: { kind: 'still', name: 'kite.cutout', length: STILL_LENGTH } })
  expect(JSON.stringify(step)).not.toContain('source')
})

test('a take that has not been looked at cannot be placed', () => {
  expect(placeStep(take('video', { facts: null }), 'end', 0)).toBeNull()
})
