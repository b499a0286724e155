import { expect, test } from 'vitest'
import { alongAxes, cornersOf, middleOf, snapToCanvas, snapTurn, type Placed } from './placing'

const canvas = { width: 1080, height: 1920 }
const wide = { width: 1920, height: 1080 }
const plain: Placed = {
  x: 0,
  y: 0,
  across: 1,
  down: 1,
  turn: 0,
  lean: 0,
  pivot: { x: 0, y: 0 },
  fit: 'whole',
}

test('a wide picture fits into an upright canvas by its width, or fills it by its height', () => {
  const whole = cornersOf(plain, wide, canvas)
  expect(whole[0]).toEqual({ x: 0, y: 960 - 303.75 })
  const fill = cornersOf({ ...plain, fit: 'fill' }, wide, canvas)
  expect(fill[0]?.y).toBeCloseTo(0)
  expect(fill[0]?.x).toBeCloseTo(540 - (1920 * (1920 / 1080)) / 2)
})

test('turning goes clockwise about the pivot', () => {
  const corners = cornersOf({ ...plain, turn: 90 }, canvas, canvas)
  expect(corners[0]?.x).toBeCloseTo(540 + 960)
  expect(corners[0]?.y).toBeCloseTo(960 - 540)
  expect(middleOf(corners).x).toBeCloseTo(540)
})

test('a picture near the middle is drawn to it, one far off is left alone', () => {
  const small: Placed = { ...plain, across: 0.3, down: 0.3 }
  const near = snapToCanvas(cornersOf({ ...small, x: 6, y: 200 }, canvas, canvas), canvas, 12)
  expect(near.by.x).toBeCloseTo(-6)
  expect(near.guides).toEqual({ x: 540, y: null })
  const far = snapToCanvas(cornersOf({ ...small, x: 60, y: 200 }, canvas, canvas), canvas, 12)
  expect(far.guides).toEqual({ x: null, y: null })
})

test('turns snap to fifteen degrees and stay within half a circle', () => {
  expect(snapTurn(44)).toBe(45)
  expect(snapTurn(50)).toBe(50)
  expect(snapTurn(181)).toBe(-180)
})

test('a picture in its cell slides along its own axes, also when turned', () => {
  const straight = alongAxes({ x: 60, y: 3 }, 0, 8)
  expect([straight.x, straight.y]).toEqual([60, 0])
  const turned = alongAxes({ x: 40, y: 44 }, 45, 8)
  expect(turned.x).toBeCloseTo(turned.y, 9)
  expect(alongAxes({ x: 60, y: 30 }, 0, 8)).toEqual({ x: 60, y: 30 })
})
