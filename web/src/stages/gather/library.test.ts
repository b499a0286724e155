import { expect, test } from 'vitest'
import type { Take, Track } from '@/api/types'
import { usage } from '@/takes/usage'
import { EVERYTHING, filtered } from './library'

function take(name: string, more: Partial<Take> = {}): Take {
  const facts = { kind: 'still', length: 0 }
  return {
    name,
    media: name,
    state: 'ready',
    stars: 0,
    tag: '',
    shelf: null,
    facts,
    ...more,
  } as Take
}

test('all words, stars, colour and shelf have to fit', () => {
  const takes = [
    take('Kite high.mp4', { stars: 3, tag: 'sea', shelf: 1 }),
    take('kite low.mp4', { stars: 1 }),
    take('ridge.mp4', { stars: 5 }),
    take('still coming', { state: 'arriving' }),
  ]
  const names = (change: object) =>
    filtered(takes, { ...EVERYTHING, ...change }, new Map([['ridge.mp4', 2]])).map(
      (one) => one.name,
    )
  expect(names({})).toHaveLength(3)
  expect(names({ words: 'KITE hi' })).toEqual(['Kite high.mp4'])
  expect(names({ stars: 3, sort: 'stars' })).toEqual(['ridge.mp4', 'Kite high.mp4'])
  expect(names({ tag: 'sea' })).toEqual(['Kite high.mp4'])
  expect(names({ shelf: 1 })).toEqual(['Kite high.mp4'])
  expect(names({ unused: true })).toEqual(['Kite high.mp4', 'kite low.mp4'])
})

test('names sort by their numbers', () => {
  const takes = [take('star 10.png'), take('star 9.png')]
  const sorted = filtered(takes, { ...EVERYTHING, sort: 'name' }, new Map())
  expect(sorted.map((one) => one.name)).toEqual(['star 9.png', 'star 10.png'])
})

test('clips in groups count as uses', () => {
  const still = { kind: 'still', media: 'a' }
  const group = { kind: 'group', tracks: [{ clips: [still] }] }
  const tracks = [{ clips: [still, group, { kind: 'sequence', pictures: ['a', 'b'] }] }]
  const found = usage(tracks as unknown as Track[])
  expect([found.get('a'), found.get('b')]).toEqual([3, 1])
})
