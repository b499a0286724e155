import { expect, test } from 'vitest'
import type { MulticamClip } from '@/api/types'
import { angleAt, anglesOf, digitOf, stretchesOf } from './angles'

const multicam = (more: object = {}) =>
  ({
    kind: 'multicam',
    start: 1000,
    length: 600,
    source_in: 100,
    tracks: [
      { kind: 'main', name: 'near', clips: [{ tag: 'sky' }] },
      { kind: 'sound', name: '', clips: [{}] },
      { kind: 'picture', name: 'far', clips: [{ tag: 'sea' }] },
    ],
    switches: [
      { at: 0, angle: 0 },
      { at: 300, angle: 2 },
      { at: 900, angle: 0 },
    ],
    ...more,
  }) as unknown as MulticamClip

test('angles have names, colours and digits', () => {
  expect(anglesOf(multicam())).toEqual([
    { index: 0, name: 'near', tag: 'sky', seen: true },
    { index: 1, name: '2', tag: '', seen: false },
    { index: 2, name: 'far', tag: 'sea', seen: true },
  ])
  expect([0, 8, 9, 10].map(digitOf)).toEqual(['1', '9', '0', '11'])
})

test('stretches are those of the part that is shown', () => {
  expect(stretchesOf(multicam())).toEqual([
    { from: 1000, to: 1200, angle: 0, at: 0 },
    { from: 1200, to: 1600, angle: 2, at: 300 },
  ])
  expect([999, 1199, 1200].map((tick) => angleAt(multicam(), tick))).toEqual([0, 0, 2])
})

test('they follow the speed, and the way', () => {
  const fast = multicam({ speed: { points: [{ at: 0, speed: 2 }] } })
  expect(stretchesOf(fast).map(({ from, to }) => [from, to])).toEqual([
    [1000, 1100],
    [1100, 1400],
    [1400, 1600],
  ])
  const back = multicam({ source_in: 700, speed: { points: [{ at: 0, speed: -1 }] } })
  const [first, second] = stretchesOf(back)
  expect([first?.from, first?.to, first?.angle]).toEqual([1399, 1600, 0])
  expect([second?.from, second?.to]).toEqual([1000, 1399])
})

test('where nothing has a picture yet, no stretch is seen', () => {
  expect(stretchesOf(multicam({ tracks: [], switches: [{ at: 0, angle: 0 }] }))).toEqual([])
  const sounds = { tracks: [{ kind: 'sound', clips: [{}] }], switches: [{ at: 0, angle: 0 }] }
  expect(stretchesOf(multicam(sounds))).toEqual([])
})
