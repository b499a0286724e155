import { describe, expect, it } from 'vitest'
import { decibelsAt, gainLabel, HIGHEST, LOWEST, shareOf } from './faders'

describe('faders', () => {
  it('lead from share to decibels and back', () => {
    for (const decibels of [LOWEST, -48, -20, -6, -0.5, 0, 3, HIGHEST]) {
      expect(decibelsAt(shareOf(decibels))).toBeCloseTo(decibels, 6)
    }
  })
  it('rise all the way, with most of it between -20 dB and the upper end', () => {
    const shares = [-60, -40, -20, -10, 0, 6, 12].map(shareOf)
    expect([...shares].sort((a, b) => a - b)).toEqual(shares)
    expect(shareOf(-20)).toBeLessThan(0.45)
    expect(shareOf(-90)).toBe(0)
    expect(shareOf(30)).toBe(1)
  })
  it('tell gains with their sign', () => {
    expect([-60, -6, -0.04, 0, 2.55].map(gainLabel)).toEqual(['−∞', '−6.0', '0.0', '0.0', '+2.5'])
  })
})
