import { expect, test } from 'vitest'
import { closerBy, CLOSEST, keptInside } from './view'

const fits = { zoom: 1, x: 0, y: 0 }

test('what is under the finger stays there', () => {
  const view = closerBy({ zoom: 2, x: 10, y: -5 }, 2, { x: 30, y: 40 })
  // A point of the picture, before and after, in pixels from the middle of the room.
  const spot = { x: (30 - 10) / 2, y: (40 + 5) / 2 }
  expect(spot.x * view.zoom + view.x).toBeCloseTo(30)
  expect(spot.y * view.zoom + view.y).toBeCloseTo(40)
})

test('never smaller than it fits, nor closer than the closest', () => {
  expect(closerBy(fits, 0.1, { x: 0, y: 0 }).zoom).toBe(1)
  expect(closerBy(fits, 100, { x: 0, y: 0 }).zoom).toBe(CLOSEST)
})

test('it is not moved beyond its edges', () => {
  const room = { width: 400, height: 300 }
  const picture = { width: 200, height: 300 }
  expect(keptInside({ zoom: 1, x: 50, y: 50 }, room, picture)).toEqual(fits)
  expect(keptInside({ zoom: 4, x: 999, y: -999 }, room, picture)).toEqual({
    zoom: 4,
    x: 200,
    y: -450,
  })
})
