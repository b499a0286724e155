import { expect, test } from 'vitest'
import { PAUSE, shareFor, useHaste } from './haste'

test('what comes in time is asked for whole, dear pictures smaller, none below a third', () => {
  expect(shareFor(20)).toBe(1)
  expect(shareFor(80)).toBe(2 / 3)
  expect(shareFor(140)).toBe(1 / 2)
  expect(shareFor(9000)).toBe(1 / 3)
})

test('only a question that follows another is in haste', () => {
  let clock = 1000
  const haste = useHaste(() => clock)
  expect(haste.hastens()).toBe(false)
  clock += 16
  expect(haste.hastens()).toBe(true)
  clock += PAUSE
  expect(haste.hastens()).toBe(false)
})

test('what small pictures took says what a whole one would', () => {
  const haste = useHaste(() => 0)
  haste.took(24, 1 / 3)
  expect(haste.share()).toBe(2 / 3)
  haste.took(30, 1)
  expect(haste.share()).toBe(1)
})
