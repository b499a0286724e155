import { describe, expect, it } from 'vitest'
import cases from './keys.cases.json'
import { around, changedAt, keyAt, moves, toggledKey, valueAt, withKey, withoutKey } from './keys'

const keys = {
  keys: [
    { at: 0, value: 0 },
    { at: 10, value: 100, ease: { kind: 'hold' } },
    { at: 20, value: 0 },
  ],
}

describe('keys', () => {
  it('are read as the core reads them', () => {
    expect([-5, 5, 10, 19, 20, 99].map((at) => valueAt(keys, at))).toEqual([0, 50, 100, 100, 0, 0])
    expect(valueAt(7, 3)).toBe(7)
    expect(valueAt([1, 2], 3)).toEqual([1, 2])
    expect(
      valueAt(
        {
          keys: [
            { at: 0, value: [0, 2] },
            { at: 4, value: [4, 0] },
          ],
        },
        1,
      ),
    ).toEqual([1, 1.5])
  })

  it.each(cases.map((one) => [one.kind, one] as const))(
    'between two of them %s are what the core says',
    (_, { prop, at }) => {
      for (const [tick, value] of at) {
        const found = valueAt(prop, tick as number)
        expect(gap(found, value), `at ${tick as number}`).toBeLessThan(0.005)
      }
    },
  )

  it('are set where a property has some, and only then', () => {
    expect(changedAt(3, 5, 4)).toBe(4)
    expect(changedAt(keys, 5, 4)).toEqual({
      keys: [keys.keys[0], { at: 5, value: 4 }, ...keys.keys.slice(1)],
    })
    expect(withKey(3, 5, 4)).toEqual({ keys: [{ at: 5, value: 4 }] })
  })

  it('become a plain value when the last one goes', () => {
    expect(withoutKey({ keys: [{ at: 5, value: 4 }] }, 5)).toBe(4)
    expect(withoutKey(keys, 10)).toEqual({ keys: [keys.keys[0], keys.keys[2]] })
    expect(around(keys, 12)).toEqual({ before: 10, after: 20 })
  })
})

describe('a point whose numbers move apart', () => {
  const point = { across: keys, down: 3 }

  it('is read, and has the keys of both', () => {
    expect(valueAt(point, 5)).toEqual([50, 3])
    expect([moves(point), moves({ across: 1, down: 3 })]).toEqual([true, false])
    expect(keyAt({ across: 1, down: keys }, 10)?.value).toBe(100)
    expect(around({ across: keys, down: { keys: [{ at: 12, value: 1 }] } }, 11)).toEqual({
      before: 10,
      after: 12,
    })
  })

  it('is set only where it differs', () => {
    expect(changedAt(point, 5, [50, 9])).toEqual({ across: keys, down: 9 })
    expect(changedAt(point, 5, [40, 3])).toEqual({ across: withKey(keys, 5, 40), down: 3 })
  })

  it('is given a key in both, and loses those that are there', () => {
    const both = toggledKey(point, 5, [0, 0])
    expect(both).toEqual({ across: withKey(keys, 5, 50), down: { keys: [{ at: 5, value: 3 }] } })
    expect(toggledKey(both, 5, [0, 0])).toEqual(point)
    expect(toggledKey(point, 10, [0, 0])).toEqual({ across: withoutKey(keys, 10), down: 3 })
  })
})

/** The largest difference of two values' numbers; infinite where they differ in anything else. */
function gap(a: unknown, b: unknown): number {
  if (typeof a === 'number' && typeof b === 'number') return Math.abs(a - b)
  if (typeof a !== 'object' || typeof b !== 'object' || !a || !b) return a === b ? 0 : Infinity
  const names = new Set([...Object.keys(a), ...Object.keys(b)])
  const inner = (from: object, name: string) => (from as Record<string, unknown>)[name]
  return Math.max(0, ...[...names].map((name) => gap(inner(a, name), inner(b, name))))
}
