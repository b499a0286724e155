import { describe, expect, it } from 'vitest'
import { decibelsAt, frequencyAt, frequencyLabel, H, W, xOf, yOf } from './equaliser'

describe('the graph of an equaliser', () => {
  it('leads from frequency and gain to a place and back', () => {
    for (const frequency of [20, 120, 1000, 7000, 20_000]) {
      expect(frequencyAt(xOf(frequency))).toBe(frequency)
    }
    for (const decibels of [-18, -4.5, 0, 9]) expect(decibelsAt(yOf(decibels))).toBe(decibels)
  })
  it('stays within its edges', () => {
    expect([frequencyAt(-50), frequencyAt(W + 50)]).toEqual([20, 20_000])
    expect([decibelsAt(-50), decibelsAt(H + 50)]).toEqual([18, -18])
  })
  it('tells frequencies as people read them', () => {
    expect([80, 999.6, 1000, 12_340].map(frequencyLabel)).toEqual([
      '80 Hz',
      '1000 Hz',
      '1 kHz',
      '12.34 kHz',
    ])
  })
})
