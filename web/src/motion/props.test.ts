import { expect, test } from 'vitest'
import { everyKeyed, keyedProps, keyedState, omitted, read, wholeOf } from './props'

const keys = { keys: [{ at: 5, value: 1 }] }

test('reads by path, and finds nothing where nothing is', () => {
  expect(read({ a: { b: [1, 2] } }, 'a/b/1')).toBe(2)
  expect(read({ a: null }, 'a/b')).toBeUndefined()
  expect(read(7, '')).toBe(7)
})

test('leaves fields out', () => {
  expect(omitted({ a: 1, b: 2, c: 3 }, 'a', 'c')).toEqual({ b: 2 })
})

test('finds keys however deep, and tells whether one is here', () => {
  expect(everyKeyed({ a: [keys, { b: keys }], c: 1 })).toEqual([keys, keys])
  expect(keyedState(keys, 5)).toBe('here')
  expect(keyedState(keys, 6)).toBe('some')
  expect(keyedState(0.5, 5)).toBe('none')
})

test('one number of a point leads to the point', () => {
  expect(['place/size/down', 'place/size', 'breakdown'].map(wholeOf)).toEqual([
    'place/size',
    'place/size',
    'breakdown',
  ])
})

test('names parts of lists by their ids', () => {
  const clip = {
    effects: [
      { id: 'x', mix: 1 },
      { id: 'y', mix: keys },
    ],
    opacity: keys,
    tracks: [keys],
  }
  expect(read(clip, 'effects/y/mix')).toBe(keys)
  expect(read(clip, 'effects/0/mix')).toBe(1)
  expect(read({ place: { position: [4, 7] } }, 'place/position/down')).toBe(7)
  expect(keyedProps(clip).map(({ path }) => path)).toEqual(['effects/y/mix', 'opacity'])
})

test('times of words are keys only while words are lit', () => {
  const said = { keys: [{ at: 0, value: 1 }] }
  const paths = (lit: unknown) => keyedProps({ kind: 'text', said, lit }).map(({ path }) => path)
  expect([paths(null), paths({ kind: 'plain', colour: '#ffb454' })]).toEqual([[], ['said']])
})
