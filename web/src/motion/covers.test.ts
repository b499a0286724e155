import { expect, test } from 'vitest'
import { coverOver } from './covers'

const canvas = { width: 1080, height: 1920 }
const box = (x: number, y: number, wide: number, high: number, angle = 0) =>
  [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ].map(([a, b]) => {
    const [u, v] = [((a as number) * wide) / 2, ((b as number) * high) / 2]
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)]
    return { x: x + u * cos - v * sin, y: y + u * sin + v * cos }
  })

test('a cover lies over the thing, larger than it, as turned as it is', () => {
  const cover = coverOver(box(640, 768, 192, 384, 0.5), canvas, 'rectangle')
  expect(cover.centre[0]).toBeCloseTo((640 - 540) / 1920, 4)
  expect(cover.centre[1]).toBeCloseTo((768 - 960) / 1920, 4)
  expect(cover.size[0]).toBeGreaterThan(0.05)
  expect(cover.size[1] / cover.size[0]).toBeCloseTo(2, 2)
  expect(cover.turn).toBeCloseTo((0.5 * 180) / Math.PI, 2)
})

test('no corner looks out of a round one', () => {
  const spots = box(300, 500, 200, 90)
  const { centre, size } = coverOver(spots, canvas, 'ellipse')
  for (const { x, y } of spots) {
    const u = ((x - 540) / 1920 - centre[0]) / size[0]
    const v = ((y - 960) / 1920 - centre[1]) / size[1]
    expect(Math.hypot(u, v)).toBeLessThan(1)
  }
})
