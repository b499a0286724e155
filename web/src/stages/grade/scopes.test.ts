import { describe, expect, it } from 'vitest'
import { colourOf } from '@/controls/hues'
import { glow, histogramPaths, percent } from './scopes'

describe('scopes', () => {
  it('let single pixels be seen and many not drown the rest', () => {
    expect(glow(0, 5)).toBe(0)
    expect(glow(1, 5)).toBeGreaterThan(0.1)
    expect(glow(500, 5)).toBeLessThanOrEqual(1)
  })

  it('know the colours of the vectorscope', () => {
    expect(colourOf(0, 0, 0.5)).toEqual([128, 128, 128])
    const [red, green, blue] = colourOf(-0.1146, 0.5, 0.2126)
    expect([red, green, blue]).toEqual([255, 0, 0])
  })

  it('scale a histogram by what lies between the ends', () => {
    const data = new Uint32Array(4 * 256)
    data.fill(10, 256)
    data[256] = 9999
    const [red] = histogramPaths({ shape: [4, 256], data })
    expect(red).toContain('L128 6.0')
  })

  it('say small shares as small', () => {
    expect([0, 0.0004, 0.018].map(percent)).toEqual(['0.0 %', '< 0.1 %', '1.8 %'])
  })
})
