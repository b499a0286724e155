import { describe, expect, it } from 'vitest'
import cases from './fades.cases.json'
import { fadeAt, fadeCurve, withGain, withKey, withoutKey } from './soundline'

const keys = (...spots: [number, number][]) => ({
  keys: spots.map(([at, value]) => ({ at, value, ease: { kind: 'steady' as const } })),
})

describe('the line of a gain', () => {
  it('is one value without keys', () => {
    expect(withGain(-6, 5, -12)).toBe(-12)
    expect(withGain(-6, 5, 40)).toBe(12)
  })
  it('moves the keys on both sides of where it is held', () => {
    const line = keys([0, 0], [10, -10], [20, -10], [30, 0])
    expect(withGain(line, 15, -16)).toEqual(keys([0, 0], [10, -16], [20, -16], [30, 0]))
    expect(withGain(line, 5, -8)).toEqual(keys([0, -3], [10, -13], [20, -10], [30, 0]))
  })
  it('moves one key alone where it is held at it, or beyond the last', () => {
    const line = keys([0, 0], [10, -10])
    expect(withGain(line, 10, -4)).toEqual(keys([0, 0], [10, -4]))
    expect(withGain(line, 25, -20)).toEqual(keys([0, 0], [10, -20]))
  })
  it('gets keys and loses them', () => {
    expect(withKey(-3, 7, -3)).toEqual(keys([7, -3]))
    expect(withKey(keys([0, 0], [10, -10]), 5, -5)).toEqual(keys([0, 0], [5, -5], [10, -10]))
    expect(withoutKey(keys([0, 0], [10, -10]), 10)).toEqual(keys([0, 0]))
    expect(withoutKey(keys([7, -3]), 7)).toBe(-3)
  })
})

describe('a fade', () => {
  it('is as loud as the core makes it', () => {
    for (const { shape, share, level } of cases) expect(fadeAt(shape, share)).toBeCloseTo(level, 9)
  })
  it('is drawn from silence to loudness', () => {
    expect(fadeCurve('straight', 0, 40)).toBe('')
    expect(fadeCurve('straight', 32, 40)).toMatch(
      /^M0 0L0\.0 40\.0.*L16\.0 20\.0.*L32\.0 0\.0L32\.0 0Z$/,
    )
  })
})
