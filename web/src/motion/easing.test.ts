import { expect, test } from 'vitest'
import cases from './easing.cases.json'
import { eased, keyShape, PRESETS } from './easing'

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
