import { expect, test } from 'vitest'
import type { Track } from '@/api/types'
import { beatsOf, roomy } from './beats'

const track = (start: number, marks: [number, string][]) =>
  ({
    clips: [{ start, length: 100, markers: marks.map(([at, beat]) => ({ at, beat })) }],
  }) as unknown as Track

test('beats are told where their clips lie, once each, without those that were cut away', () => {
  const music = track(1000, [
    [-10, 'beat'],
    [0, 'bar'],
    [50, 'beat'],
    [60, ''],
    [100, 'beat'],
  ])
  const copy = track(950, [
    [0, 'beat'],
    [50, 'beat'],
  ])
  expect(beatsOf([music, copy, {} as Track])).toEqual([
    { at: 950, bar: false },
    { at: 1000, bar: true },
    { at: 1050, bar: false },
  ])
})

test('where there is no room for all of them bars are left', () => {
  const beats = beatsOf([
    track(0, [
      [0, 'bar'],
      [20, 'beat'],
      [40, 'bar'],
    ]),
  ])
  expect(roomy(beats, 20)).toHaveLength(3)
  expect(roomy(beats, 21).map(({ at }) => at)).toEqual([0, 40])
})

test('where there are no bars, or not even room for those, the first ones are left', () => {
  const row = (kind: string) =>
    beatsOf([
      track(
        0,
        [0, 10, 20, 30].map((at) => [at, kind]),
      ),
    ])
  for (const kind of ['beat', 'bar']) {
    expect(roomy(row(kind), 15).map(({ at }) => at)).toEqual([0, 20])
  }
  expect(roomy([], 15)).toEqual([])
})
