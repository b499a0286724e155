import { expect, test } from 'vitest'
import type { Track } from '@/api/types'
import { found, othersOf } from './effects'

const kinds = [
  {
    kind: 'zoom_blur',
    title: 'Zoom blur',
    help: 'smeared away from a point',
    family: 'soft' as const,
  },
  {
    kind: 'shadow',
    title: 'Shadow',
    help: 'falls behind, soft as a blur',
    family: 'light' as const,
  },
  { kind: 'box_blur', title: 'Box blur', help: 'the mean of a square', family: 'soft' as const },
]
const names = (...asked: [string, ('soft' | 'light' | 'favourites' | '')?, string[]?]) =>
  found(kinds, ...asked).map((one) => one.kind)

test('finds by any words of title and help, titles that begin so first', () => {
  expect(names('blur')).toEqual(['box_blur', 'shadow', 'zoom_blur'])
  expect(names('zoom')).toEqual(['zoom_blur'])
  expect(names('sh')).toEqual(['shadow'])
  expect(names('blur point')).toEqual(['zoom_blur'])
  expect(names('  ')).toHaveLength(3)
  expect(names('nothing')).toEqual([])
})

test('of a family, or of the favourites, only those', () => {
  expect(names('blur', 'soft')).toEqual(['box_blur', 'zoom_blur'])
  expect(names('', 'favourites', ['shadow'])).toEqual(['shadow'])
  expect(names('', 'favourites')).toEqual([])
})

test('other layers are offered by name and track, without sounds and adjustments', () => {
  const clip = (id: string, kind: string, start = 0) => ({ id, kind, start, length: 5 })
  const tracks = [
    { name: 'Main', clips: [clip('a', 'video'), clip('b', 'adjustment'), clip('e', 'solid', 5)] },
    { name: 'Above', clips: [clip('c', 'text', 4), clip('d', 'sound')] },
  ] as unknown as Track[]
  expect(othersOf(tracks, ['a'])[0]).toEqual({ id: 'c', name: 'text · Above' })
  expect(othersOf(tracks, ['a']).map(({ id }) => id)).toEqual(['c', 'e'])
  expect(othersOf(tracks, []).map(({ id }) => id)).toEqual(['a', 'e', 'c'])
})
