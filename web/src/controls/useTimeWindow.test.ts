import { expect, test } from 'vitest'
import { fitted, pulled, useTimeWindow, zoomed } from './useTimeWindow'

const WHOLE = { low: 0, high: 1000 }
const ROOM = { left: 50, width: 100 }

test('a stretch stays within the whole, and is never shorter than the closest look', () => {
  expect(fitted({ low: -50, high: 150 }, WHOLE)).toEqual({ low: 0, high: 200 })
  expect(fitted({ low: 900, high: 1100 }, WHOLE)).toEqual({ low: 800, high: 1000 })
  expect(fitted({ low: -900, high: 2000 }, WHOLE)).toEqual(WHOLE)
  const tiny = fitted({ low: 500, high: 500 }, WHOLE)
  expect(tiny.high - tiny.low).toBeCloseTo(1000 / 64)
})

test('what one looks at stays where it is while one comes closer', () => {
  const near = zoomed(WHOLE, 4, 200)
  expect(near).toEqual({ low: 150, high: 400 })
  expect((200 - near.low) / (near.high - near.low)).toBeCloseTo(0.2)
})

test('one finger pulls, two have the same moments under them all the time', () => {
  const one = { begun: [{ x: 100, y: 0 }], now: [{ x: 90, y: 0 }] }
  expect(pulled(WHOLE, one, ROOM)).toEqual({ low: 100, high: 1100 })
  const two = {
    begun: [
      { x: 80, y: 0 },
      { x: 120, y: 0 },
    ],
    now: [
      { x: 60, y: 0 },
      { x: 140, y: 0 },
    ],
  }
  const near = pulled(WHOLE, two, ROOM)
  const under = (x: number) => near.low + ((x - 50) / 100) * (near.high - near.low)
  expect(under(60)).toBeCloseTo(300)
  expect(under(140)).toBeCloseTo(700)
})

test('what is looked at closely follows a moment, as near as the ends allow', () => {
  const time = useTimeWindow(
    () => WHOLE,
    () => ROOM,
  )
  time.zoom(4, 0)
  expect(time.shown.value).toEqual({ low: 0, high: 250 })
  time.follow(600)
  expect(time.shown.value).toEqual({ low: 475, high: 725 })
  time.follow(990)
  expect(time.shown.value).toEqual({ low: 750, high: 1000 })
})
