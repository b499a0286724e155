import { describe, expect, it } from 'vitest'
import { faceAt } from './persons'
import type { Quad } from './quads'

const quad = (x: number): Quad => [
  [x, 0],
  [x + 1, 0],
  [x + 1, 1],
  [x, 1],
]
const seen = {
  first: 100,
  last: 200,
  tracked: {
    change: 'turns' as const,
    views: [
      { at: 150, corners: quad(5) },
      { at: 110, corners: quad(1) },
    ],
    first: 90,
    last: 210,
    spots: [],
    face: true,
  },
}

describe('faceAt', () => {
  it('is where it was seen last, until it was followed', () => {
    expect(faceAt(seen, null, 105)).toEqual(quad(1))
    expect(faceAt(seen, null, 149)).toEqual(quad(1))
    expect(faceAt(seen, null, 199)).toEqual(quad(5))
  })

  it('is nowhere before it comes, and after it went', () => {
    expect(faceAt(seen, null, 99)).toBeNull()
    expect(faceAt(seen, null, 201)).toBeNull()
  })

  it('is where it was followed to, and nowhere where it was lost', () => {
    const found = {
      ticks: [0, 7e6 * 20],
      quads: [quad(3).flat(), quad(4).flat()],
      sure: [255, 0],
      why: [],
    }
    const long = { ...seen, first: 0, last: 1e10 }
    expect(faceAt(long, found, 0)).toEqual(quad(3))
    expect(faceAt(long, found, 7e6 * 21)).toBeNull()
  })
})
