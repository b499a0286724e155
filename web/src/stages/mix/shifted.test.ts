import { describe, expect, it } from 'vitest'
import { shifted } from './shifted'

const keys = (...values: number[]) => ({
  keys: values.map((value, at) => ({ at, value, ease: { kind: 'hold' } })),
})

describe('a gain that is shifted', () => {
  it('moves by as much, within its bounds', () => {
    expect(shifted(-6, 2.5)).toBe(-3.5)
    expect(shifted(undefined, -3)).toBe(-3)
    expect(shifted(20, 30)).toBe(24)
  })
  it('is brought to a level, whatever it was', () => {
    expect(shifted(-40, 2.5, { to: true })).toBe(2.5)
  })
  it('moves all of its keys, which stay as they lie to each other', () => {
    expect(shifted(keys(-10, -4), 3)).toEqual(keys(-7, -1))
    expect(shifted(keys(-10, -4), 3, { to: true })).toEqual(keys(-3, 3))
  })
})
