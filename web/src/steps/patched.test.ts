import { expect, test } from 'vitest'
import { patched, type Operation } from './patched'

const document = () => ({
  name: 'Kites',
  rows: [
    {
      id: 'a',
      clips: [
        { id: '1', start: 0 },
        { id: '2', start: 5 },
        { id: '3', start: 9 },
      ],
    },
    { id: 'b', clips: [] as { id: string; start: number }[] },
  ],
})

test('what a patch leaves alone stays the very same', () => {
  const before = document()
  const copy = structuredClone(before)
  const after = patched(before, [{ op: 'replace', path: '/rows/0/clips/1/start', value: 6 }])
  expect(after.rows[0]?.clips[1]).toEqual({ id: '2', start: 6 })
  expect(after.rows[1]).toBe(before.rows[1])
  expect(after.rows[0]?.clips[0]).toBe(before.rows[0]?.clips[0])
  expect(after.rows[0]?.clips).not.toBe(before.rows[0]?.clips)
  expect(before).toEqual(copy)
})

test('items of lists come and go at their places, one operation after another', () => {
  const operations: Operation[] = [
    { op: 'remove', path: '/rows/0/clips/2' },
    { op: 'remove', path: '/rows/0/clips/0' },
    { op: 'add', path: '/rows/0/clips/0', value: { id: 'x', start: 1 } },
    { op: 'add', path: '/rows/0/clips/2', value: { id: 'y', start: 8 } },
    { op: 'add', path: '/rows/1/clips/0', value: { id: 'z', start: 2 } },
  ]
  const after = patched(document(), operations)
  expect(after.rows.map((row) => row.clips.map((clip) => clip.id))).toEqual([
    ['x', '2', 'y'],
    ['z'],
  ])
})

test('names with strokes and tildes are read as RFC 6901 says', () => {
  const before = { 'a/b': 1, 'm~n': 2, '~1': 3 }
  const operations: Operation[] = [
    { op: 'replace', path: '/a~1b', value: 10 },
    { op: 'replace', path: '/m~0n', value: 20 },
    { op: 'replace', path: '/~01', value: 30 },
  ]
  expect(patched(before, operations)).toEqual({ 'a/b': 10, 'm~n': 20, '~1': 30 })
})
