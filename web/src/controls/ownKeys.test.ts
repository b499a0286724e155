import { expect, test } from 'vitest'
import { bound, keyNow, meaning, withKey, type KeyGroup } from './ownKeys'

const nothing = () => {}
const binding = (key: string, label: string) => ({ key, label, run: nothing })
const anywhere: KeyGroup = {
  id: 'anywhere',
  name: 'Anywhere',
  everywhere: true,
  keys: [binding('space', 'Play'), binding('x', 'Backwards')],
}
const move: KeyGroup = { id: 'move', name: 'move', keys: [binding('q', 'Key before')] }
const grade: KeyGroup = { id: 'grade', name: 'grade', keys: [binding('q', 'Wipe')] }
const groups = [anywhere, move, grade]

test('a key is what it was until somebody sets it, and again after', () => {
  const own = withKey({}, 'move', 'q', 'y')
  expect(keyNow(own, 'move', 'q', true)).toBe('y')
  expect(keyNow(own, 'grade', 'q', true)).toBe('q')
  expect(withKey(own, 'move', 'q', 'q')).toEqual({})
})

test('keys of one letter can be switched off; those taken away are not bound', () => {
  expect(bound({}, anywhere, false).map((one) => one.key)).toEqual(['space'])
  expect(bound(withKey({}, 'anywhere', 'space', ''), anywhere, true).map((one) => one.key)).toEqual(
    ['x'],
  )
})

test('a key may mean different things in two stages, but not twice in one place', () => {
  const [before] = move.keys
  const [play] = anywhere.keys
  if (!before || !play) throw new Error('no keys')
  expect(meaning({}, groups, move, before, 'x')?.label).toBe('Backwards')
  expect(meaning({}, groups, move, before, 'y')).toBeUndefined()
  expect(meaning({}, groups, anywhere, play, 'q')?.label).toBe('Key before')
  const own = withKey({}, 'anywhere', 'x', 'z')
  expect(meaning(own, groups, move, before, 'x')).toBeUndefined()
})
