import { expect, test } from 'vitest'
import { keyLabel, keyName } from './keys'

function pressed(key: string, held: Partial<KeyboardEvent> = {}): string {
  return keyName({ key, ctrlKey: false, metaKey: false, shiftKey: false, ...held } as KeyboardEvent)
}

test('keys have one name however they are pressed', () => {
  expect(pressed(' ')).toBe('space')
  expect(pressed('S', { shiftKey: true })).toBe('shift+s')
  expect(pressed('Backspace')).toBe('delete')
  expect(pressed('z', { metaKey: true })).toBe('ctrl+z')
  expect(pressed('Z', { ctrlKey: true, shiftKey: true })).toBe('ctrl+shift+z')
  expect(pressed('?', { shiftKey: true })).toBe('?')
})

test('what a key writes with Shift, or on another layout, changes nothing', () => {
  const comma = { code: 'Comma', shiftKey: true }
  expect([pressed('<', comma), pressed(';', comma)]).toEqual(['shift+,', 'shift+,'])
  expect(pressed('ы', { code: 'KeyS' })).toBe('s')
  expect(pressed('z', { code: 'KeyY' })).toBe('z')
})

test('Alt makes another key of it', () => {
  expect(pressed('s', { altKey: true })).toBe('alt+s')
})

test('keys are written as on a keyboard', () => {
  expect(keyLabel('shift+arrowleft')).toBe('Shift + ←')
  expect(keyLabel('ctrl+z')).toBe('Ctrl + Z')
  expect(keyLabel('esc')).toBe('Esc')
})
