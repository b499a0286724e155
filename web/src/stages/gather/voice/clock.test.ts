import { expect, test } from 'vitest'
import { recordedAt } from './clock'

/** Blocks of 40 ms from a second on, each heard of as late as told; samples lost count from there on. */
const heard = (late: number[], lost: (block: number) => number = () => 0) =>
  late.map((ms, at) => ({
    came: 1000 + (at + 1) * 40 + lost(at) + ms,
    begun: 1000 + lost(at) + ms,
  }))
const often = (count: number) =>
  Array.from({ length: count }, (_, at) => [9, 130, 0, 60][at % 4] ?? 0)

test('the block that came soonest tells, also when the first came late', () => {
  expect(recordedAt(heard([200, 0, 90, 40]), [1100, 1150])).toEqual([0.1, 0.15])
})

test('samples that were lost count from where they were lost', () => {
  const blocks = heard(often(100), (block) => (block < 50 ? 0 : 80))
  expect(recordedAt(blocks, [2000, 4500])).toEqual([1, 3.42])
})

test('without a block nothing was recorded', () => {
  expect(recordedAt([], [1000])).toEqual([0])
})
