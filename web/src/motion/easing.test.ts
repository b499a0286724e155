import { expect, test } from 'vitest'
import cases from './easing.cases.json'
import { eased, keyShape, nameOfEase, PRESETS } from './easing'

test('eases are the core’s', () => {
  for (const { ease, at } of cases) {
    for (const [progress = 0, value = 0] of at) {
      expect(eased(ease, progress), ease.kind).toBeCloseTo(value, 6)
    }
  }
  expect(eased(undefined, 0.3)).toBe(0.3)
})

test('keys show what comes after them', () => {
  const shapes = ['steady', 'soft', 'hold'].map((id) =>
    keyShape(PRESETS.find((one) => one.id === id)?.ease),
  )
  expect(new Set(shapes).size).toBe(3)
})

test('an ease has a name that people know', () => {
  expect(PRESETS.map(({ ease }) => nameOfEase(ease))).toEqual(PRESETS.map(({ name }) => name))
  expect(nameOfEase(undefined)).toBe('Steady')
  expect(nameOfEase({ kind: 'bezier', x1: 0.1, y1: 0.9, x2: 0.3, y2: 1 })).toBe('Own curve')
  expect(nameOfEase({ kind: 'bounce', count: 7, kept: 0.5 })).toBe('Bounce')
})
