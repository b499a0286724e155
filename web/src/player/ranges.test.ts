import { expect, test } from 'vitest'
import { nextRange, reachFrom } from './ranges'

const ranges = (...parts: [number, number][]) =>
  ({
    length: parts.length,
    start: (part: number) => parts[part]![0],
    end: (part: number) => parts[part]![1],
  }) as TimeRanges

test('what is there reaches to the end of its range, and nowhere from within a gap', () => {
  const two = ranges([0, 1.5], [2, 3])
  expect(reachFrom(two, 0.4)).toBe(1.5)
  expect(reachFrom(two, 2)).toBe(3)
  expect(reachFrom(two, 1.999)).toBe(3)
  expect(reachFrom(two, 1.5)).toBe(1.5)
  expect(reachFrom(two, 1.7)).toBe(1.7)
  expect(reachFrom(ranges(), 7)).toBe(7)
})

test('behind a gap the next range is found', () => {
  const two = ranges([0, 1.5], [2, 3])
  expect(nextRange(two, 1.5)).toBe(2)
  expect(nextRange(two, 2.5)).toBeNull()
})
