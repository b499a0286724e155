import { describe, expect, it } from 'vitest'
import { added, aroundAt, curveAt, moved, type Spot } from './curve'

const points: Spot[] = [
  [0, 0],
  [0.25, 0.4],
  [0.6, 0.5],
  [1, 1],
]

describe('curves', () => {
  it('are drawn as the core computes them', () => {
    // From kitecore.motion.curve.curve_at.
    const wanted = [0.20601, 0.44721, 0.68472]
    expect([0.1, 0.4, 0.8].map((x) => Number(curveAt(points, x).toFixed(5)))).toEqual(wanted)
    expect(
      curveAt(
        [
          [0, 0],
          [1, 1],
        ],
        1.5,
      ),
    ).toBeCloseTo(1.5)
  })

  it('meet around the circle', () => {
    const ring: Spot[] = [
      [0.1, 0.5],
      [0.5, 0.9],
    ]
    expect(aroundAt(ring, 0)).toBeCloseTo(aroundAt(ring, 1), 9)
    expect(aroundAt([[0.3, 0.7]], 0.9)).toBe(0.7)
  })

  it('keep their points in order', () => {
    expect(moved(points, 1, [0.9, 2])[1]).toEqual([0.59, 1])
    expect(added(points, [0.25, 0.9])).toBeNull()
    expect(added(points, [0.5, 0.9])?.index).toBe(2)
  })
})
