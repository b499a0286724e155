import { expect, test } from 'vitest'
import { TICKS_PER_SECOND } from '@/api/types'
import { rulerMarks, scrollAfterZoom, toPx, toTick, firstEndingAfter } from './scale'

test('pixels and ticks are each other’s inverse', () => {
  expect(toPx(3 * TICKS_PER_SECOND, 80)).toBe(240)
  expect(toTick(240, 80)).toBe(3 * TICKS_PER_SECOND)
})

test('labels of the ruler never crowd, at any zoom', () => {
  for (const zoom of [0.05, 1, 12, 80, 300, 900]) {
    const labels = rulerMarks(1000, 3000, zoom, 30, String).filter((mark) => mark.label)
    expect(labels.length).toBeGreaterThan(0)
    labels.slice(1).forEach((mark, index) => {
      expect(mark.px - (labels[index]?.px ?? 0)).toBeGreaterThanOrEqual(63.9)
    })
  }
})

test('zooming keeps the moment under the pointer', () => {
  const before = (500 + 120) / 80
  const scroll = scrollAfterZoom(500, 120, 2.5)
  expect((scroll + 120) / (80 * 2.5)).toBeCloseTo(before)
})

test('the first clip that is seen is found without looking at all', () => {
  const clips = Array.from({ length: 500 }, (_, n) => ({ start: n * 10, length: 10 }))
  expect([-5, 0, 9, 10, 4999, 9999].map((tick) => firstEndingAfter(clips, tick))).toEqual([
    0, 0, 0, 1, 499, 500,
  ])
})
