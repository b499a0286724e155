import { expect, test } from 'vitest'
import type { Track } from '@/api/types'
import { nearest, neighbour } from './neighbours'

const track = (id: string, ...clips: [string, number, number][]) =>
  ({
    id,
    clips: clips.map(([name, start, length]) => ({ id: name, start, length })),
  }) as unknown as Track

const rows = [
  track('veil', ['v', 50, 10]),
  track('above', ['a', 0, 10], ['b', 30, 10]),
  track('empty'),
  track('main', ['m', 0, 20], ['n', 20, 20], ['o', 40, 20]),
]

test.each([
  ['n', 'before', 'm'],
  ['n', 'after', 'o'],
  ['n', 'first', 'm'],
  ['m', 'last', 'o'],
  ['n', 'above', 'b'],
  ['m', 'above', 'a'],
  ['b', 'below', 'n'],
  ['o', 'above', 'b'],
  ['b', 'above', 'v'],
  ['v', 'below', 'b'],
] as const)('from %s, %s is %s', (from, way, to) => {
  expect(neighbour(rows, from, way)?.id).toBe(to)
})

test('at the edges, and for what is not there, there is none', () => {
  for (const [id, way] of [
    ['m', 'before'],
    ['o', 'after'],
    ['v', 'above'],
    ['m', 'below'],
    ['x', 'after'],
  ] as const) {
    expect(neighbour(rows, id, way)).toBeNull()
  }
})

test('where one is gone, the nearest of its row is next, else of any row', () => {
  const gone = { id: 'x', start: 22, length: 4 } as never
  expect(nearest(rows, gone, 3)?.id).toBe('n')
  expect(nearest(rows, gone, 2)?.id).toBe('n')
  expect(nearest(rows.slice(0, 3), gone, 3)?.id).toBe('b')
  expect(nearest([], gone, 0)).toBeNull()
})
