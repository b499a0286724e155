import { expect, test } from 'vitest'
import { LEAST, standing } from './standing'
import type { Point } from './placing'

const picture = { width: 242, height: 430 }

function boxAt(x: number, y: number, width: number, height: number, turn = 0): Point[] {
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)]
  const corner = (a: number, b: number) => ({
    x: x + (a * width * cos - b * height * sin) / 2,
    y: y + (a * width * sin + b * height * cos) / 2,
  })
  return [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)]
}
const apart = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y)

test('handles of a large layer stand at its corners', () => {
  const spots = boxAt(121, 215, 160, 200, 0.3)
  const found = standing(spots, picture)
  found.frame.forEach((corner, index) => {
    expect(corner.x).toBeCloseTo(spots[index]?.x ?? 0)
    expect(corner.y).toBeCloseTo(spots[index]?.y ?? 0)
  })
})

test('wherever a small layer lies, every handle leaves a finger its room and stays inside', () => {
  for (const size of [0, 6, 20, 60]) {
    for (const turn of [0, 0.6, 2.2]) {
      for (let x = 0; x <= 242; x += 22) {
        for (let y = 0; y <= 430; y += 43) {
          const {
            corners,
            turn: turned,
            lean,
          } = standing(boxAt(x, y, size, size / 2, turn), picture)
          expect(corners.length).toBeGreaterThan(0)
          for (const one of [...corners, turned?.at, lean]) {
            if (!one) continue
            expect(apart(one, { x, y })).toBeGreaterThanOrEqual(LEAST - 4.001)
            expect(one.x).toBeGreaterThanOrEqual(9)
            expect(one.x).toBeLessThanOrEqual(picture.width - 9)
            expect(one.y).toBeGreaterThanOrEqual(9)
            expect(one.y).toBeLessThanOrEqual(picture.height - 9)
          }
        }
      }
    }
  }
})

test('a layer larger than the picture keeps corners that can be reached', () => {
  const { corners, turn } = standing(boxAt(121, 215, 900, 1600), picture)
  expect(corners).toHaveLength(4)
  expect(turn?.at.y).toBeGreaterThan(0)
})
