import { expect, test } from 'vitest'
import type { Track } from '@/api/types'
import { overlaid, takesAt } from './sameWords'

const clip = (id: string, start: number, length: number, more: object = {}) => ({
  kind: 'sound',
  name: 'Voice',
  media: `m${id}`,
  id,
  start,
  length,
  ...more,
})
const tracks = (...rows: object[][]) =>
  rows.map((clips) => ({ kind: 'sound', clips })) as unknown as Track[]

test('sounds of one name that lie over each other at a tick are takes of the same words', () => {
  const all = tracks(
    [clip('a', 0, 10), clip('b', 20, 5)],
    [clip('c', 4, 10, { muted: true })],
    [clip('d', 0, 30, { name: 'Wind' })],
  )
  expect(takesAt(all, 'Voice', 5).map(({ id, muted }) => [id, muted])).toEqual([
    ['a', false],
    ['c', true],
  ])
  expect(takesAt(all, 'Voice', 10).map(({ id }) => id)).toEqual(['c'])
  expect(takesAt(all, 'Wind', 5).map(({ media }) => media)).toEqual(['md'])
})

test('they are offered only where some lie over each other, on tracks that are not locked', () => {
  expect(overlaid(tracks([clip('a', 0, 10)], [clip('b', 10, 5)]), 'Voice')).toBe(false)
  expect(overlaid(tracks([clip('a', 0, 10)], [], [clip('b', 9, 5)]), 'Voice')).toBe(true)
  const locked = [...tracks([clip('a', 0, 10)]), { locked: true, clips: [clip('b', 0, 5)] }]
  expect(overlaid(locked as unknown as Track[], 'Voice')).toBe(false)
})
