import { expect, test } from 'vitest'
import { withinWindow } from './knobs'

const [WIDE, HIGH] = [300, 500]

test('what lies within the window stays', () => {
  const knobs = [
    { id: 'a', x: 20, y: 30 },
    { id: 'b', x: 22, y: 32 },
  ]
  expect(withinWindow(knobs, { x: 150, y: 250 }, WIDE, HIGH)).toEqual(knobs)
})

test('what lies beyond it stands at the border, on its line', () => {
  const [top, right] = withinWindow(
    [
      { id: 'top', x: 150, y: -250 },
      { id: 'right', x: 450, y: 250 },
    ],
    { x: 150, y: 250 },
    WIDE,
    HIGH,
  )
  expect(top).toEqual({ id: 'top', x: 150, y: 14 })
  expect(right).toEqual({ id: 'right', x: 286, y: 250 })
})

test('no two lie over each other there, and none leaves the window', () => {
  const beyond = ['height', 'turn', 'soft', 'width'].map((id) => ({ id, x: 40, y: -300 }))
  const placed = withinWindow(beyond, { x: 40, y: 600 }, WIDE, HIGH)
  for (const [index, one] of placed.entries()) {
    expect(one.y).toBe(14)
    expect(one.x).toBeGreaterThanOrEqual(14)
    expect(one.x).toBeLessThanOrEqual(WIDE - 14)
    for (const other of placed.slice(index + 1)) {
      expect(Math.abs(other.x - one.x)).toBeGreaterThanOrEqual(33)
    }
  }
})
