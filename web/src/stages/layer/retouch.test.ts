import { describe, expect, it } from 'vitest'
import { offsetFrom, surroundings } from './retouch'

describe('the source of strokes', () => {
  const picked = { source: [0.2, 0.1] as [number, number], offset: null, goesOn: true }
  it('lies where it was picked, from the first stroke', () => {
    expect(offsetFrom([0, 0], picked)).toEqual([0.2, 0.1])
    expect(offsetFrom([0.1, 0], { ...picked, source: null })).toBeNull()
  })
  it('goes on with later strokes, or begins again', () => {
    const offset: [number, number] = [0.2, 0.1]
    expect(offsetFrom([0.3, 0.3], { ...picked, offset })).toEqual(offset)
    const again = offsetFrom([0.3, 0.3], { ...picked, offset, goesOn: false })
    expect(again?.[0]).toBeCloseTo(-0.1)
    expect(again?.[1]).toBeCloseTo(-0.2)
  })
})

describe('what is followed with a stroke', () => {
  it('lies around it', () => {
    const [a, , c] = surroundings(
      [
        [0, 0],
        [0.1, 0],
      ],
      0.05,
      0.5625,
    )
    expect(a[0]).toBeLessThan(-0.04)
    expect(c[0]).toBeGreaterThan(0.14)
    expect(a[1]).toBeCloseTo(-c[1])
    expect(c[1]).toBeGreaterThan(0.04)
  })
  it('stays within the picture', () => {
    const [a, , c] = surroundings([[0.27, -0.49]], 0.06, 0.5625)
    expect(c[0]).toBeCloseTo(0.28125)
    expect(a[1]).toBeCloseTo(-0.5)
    expect(c[0]).toBeGreaterThan(a[0])
  })
})
