import { expect, test } from 'vitest'
import { PARAMS, startOfKind, TRANSITIONS } from './transitions'

test('a fresh transition has all it can be set to, within its bounds', () => {
  for (const { kind } of TRANSITIONS) {
    const made = startOfKind(kind, 1234)
    expect(made).toMatchObject({ kind, length: 1234 })
    for (const one of PARAMS[kind] ?? []) {
      const shown = Number(made[one.name]) * one.scale
      expect(shown).toBeGreaterThanOrEqual(one.low)
      expect(shown).toBeLessThanOrEqual(one.high)
    }
  }
})
