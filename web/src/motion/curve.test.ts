import { describe, expect, it } from 'vitest'
import cases from './curve.cases.json'
import { added, aroundAt, curveAt, moved, type Spot } from './curve'

const points: Spot[] = [
  [0, 0],
  [0.25, 0.4],
  [0.6, 0.5],
  [1, 1],
]

describe('curves', () => {
  it('are drawn as the core computes them', () => {
    for (const { points: told, at, around } of cases) {
      const spots = told as Spot[]
      for (const [x = 0, y = 0] of at) expect(curveAt(spots, x), `at ${x}`).toBeCloseTo(y, 6)
      for (const [x = 0, y = 0] of around) expect(aroundAt(spots, x), `at ${x}`).toBeCloseTo(y, 6)
    }
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
