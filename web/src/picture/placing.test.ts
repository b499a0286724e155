import { expect, test } from 'vitest'
import type { PicturedClip } from '@/api/types'
import cases from './placing.cases.json'
import {
  alongAxes,
  cornersOf,
  drawnTo,
  linesOfCanvas,
  linesOfLayer,
  mapped,
  middleOf,
  nineSpots,
  pivotMoved,
  placedOf,
  snapLean,
  snapTo,
  snapTurn,
  unmappedShift,
  withPivot,
  type Map6,
  type Placed,
} from './placing'

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
  const lines = linesOfCanvas(canvas)
  const near = snapTo(cornersOf({ ...small, x: 6, y: 200 }, canvas, canvas), lines, 12)
  expect(near.by.x).toBeCloseTo(-6)
  expect(near.guides).toEqual({ x: 540, y: null })
  const far = snapTo(cornersOf({ ...small, x: 60, y: 200 }, canvas, canvas), lines, 12)
  expect(far.guides).toEqual({ x: null, y: null })
})

test('thirds and other layers draw it too', () => {
  const small: Placed = { ...plain, across: 0.1, down: 0.1 }
  const third = snapTo(cornersOf({ ...small, x: -178 }, canvas, canvas), linesOfCanvas(canvas), 12)
  expect(third.guides.x).toBeCloseTo(360)
  const other = linesOfLayer(cornersOf({ ...small, x: 300, y: 411 }, canvas, canvas))
  const level = snapTo(cornersOf({ ...small, x: -90, y: 405 }, canvas, canvas), other, 12)
  expect(level.by.y).toBeCloseTo(6)
})

test('another pivot leaves the picture where it is, keys of its position included', () => {
  const position = {
    keys: [
      { at: 0, value: [10, 20] },
      { at: 9, value: [40, 0] },
    ],
  }
  const place = { position, turn: 30, size: [2, 0.5], lean: 10, pivot: [0, 0], fit: 'own' }
  const clip = { kind: 'shape', place } as unknown as PicturedClip
  const values = withPivot(clip, [70, -30], 9)
  const after = {
    ...clip,
    place: { ...place, pivot: values['place/pivot'], position: values['place/position'] },
  } as PicturedClip
  const [before, now] = [clip, after].map((one) => cornersOf(placedOf(one, 9), wide, canvas))
  before?.forEach((corner, index) => {
    expect(now?.[index]?.x).toBeCloseTo(corner.x, 1)
    expect(now?.[index]?.y).toBeCloseTo(corner.y, 1)
  })
})

test('a shift on the screen is led back through what moves a layer besides', () => {
  const map: Map6 = [0, 2, -2, 0, 5, 7]
  const [a, b] = [mapped(map, { x: 1, y: 2 }), mapped(map, { x: 4, y: 6 })]
  const back = unmappedShift(map, { x: b.x - a.x, y: b.y - a.y })
  expect([back.x, back.y]).toEqual([3, 4])
})

test('turns snap to fifteen degrees and stay within half a circle', () => {
  expect(snapTurn(44)).toBe(45)
  expect(snapTurn(50)).toBe(50)
  expect(snapTurn(181)).toBe(-180)
})

test('a lean snaps upright and has an end', () => {
  expect([1.4, 12.34, 89].map((one) => snapLean(one))).toEqual([0, 12.3, 80])
})

test('a picture in its cell slides along its own axes, also when turned', () => {
  const straight = alongAxes({ x: 60, y: 3 }, 0, 8)
  expect([straight.x, straight.y]).toEqual([60, 0])
  const turned = alongAxes({ x: 40, y: 44 }, 45, 8)
  expect(turned.x).toBeCloseTo(turned.y, 9)
  expect(alongAxes({ x: 60, y: 30 }, 0, 8)).toEqual({ x: 60, y: 30 })
})

test.each(cases)('a picture lies where the core draws it: $number', (one) => {
  const clip = { kind: 'still', place: one.place } as unknown as PicturedClip
  const [width = 0, height = 0] = one.picture
  const [across = 0, down = 0] = one.canvas
  const corners = cornersOf(
    placedOf(clip, one.tick),
    { width, height },
    { width: across, height: down },
  )
  one.corners.forEach(([x = 0, y = 0], index) => {
    expect(corners[index]?.x).toBeCloseTo(x, 2)
    expect(corners[index]?.y).toBeCloseTo(y, 2)
  })
})

test('a pivot that is dragged lies under the finger, and the picture stays', () => {
  const picture = { width: 200, height: 100 }
  const turned = {
    ...plain,
    fit: 'own' as const,
    x: 30,
    y: -20,
    turn: 40,
    across: 2,
    down: 0.5,
    lean: 10,
  }
  const before = cornersOf(turned, picture, canvas)
  const moved = pivotMoved(turned, { x: 25, y: -14 })
  cornersOf(moved, picture, canvas).forEach((corner, at) => {
    expect(corner.x).toBeCloseTo(before[at]?.x ?? 0)
    expect(corner.y).toBeCloseTo(before[at]?.y ?? 0)
  })
  expect(moved.x + moved.pivot.x).toBeCloseTo(30 + 25)
  expect(moved.y + moved.pivot.y).toBeCloseTo(-20 - 14)
})

test('a pivot is drawn to corners, sides and the middle', () => {
  const spots = nineSpots([
    { x: 0, y: 0 },
    { x: 100, y: 0 },
    { x: 100, y: 60 },
    { x: 0, y: 60 },
  ])
  expect(spots).toContainEqual({ x: 50, y: 30 })
  expect(spots).toContainEqual({ x: 100, y: 30 })
  expect(drawnTo({ x: 50, y: 30 }, { x: 46, y: 3 }, spots, 8)).toEqual({ x: 50, y: 0 })
  expect(drawnTo({ x: 50, y: 30 }, { x: 30, y: 3 }, spots, 8)).toEqual({ x: 30, y: 3 })
})
