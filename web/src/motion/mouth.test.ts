import { expect, test } from 'vitest'
import type { MouthClip } from '@/api/types'
import { ownStretch, ownTick, posedIn, posesOf } from './mouth'

const mouth = (more: object = {}) =>
  ({
    kind: 'mouth',
    start: 1000,
    length: 600,
    source_in: 100,
    tracks: [{ name: 'open' }, { name: 'closed' }],
    turns: [
      { at: 200, pose: 'open', sure: 0.4 },
      { at: 300, pose: 'far', by_hand: true },
    ],
    ...more,
  }) as unknown as MouthClip

test('it rests before its first turn, and where a pose is missing', () => {
  expect(posesOf(mouth())).toEqual(['open', 'closed'])
  const rows = posedIn(mouth(), 100, 700)
  expect(rows.map(({ from, to, pose, at }) => [from, to, pose, at])).toEqual([
    [100, 200, 'closed', -1],
    [200, 300, 'open', 200],
    [300, 700, 'closed', 300],
  ])
  expect(rows.map(({ byHand, sure }) => [byHand, sure])).toEqual([
    [false, null],
    [false, 0.4],
    [true, null],
  ])
})

test('without the pose of rest its first stands for it; without turns it rests', () => {
  const odd = mouth({ tracks: [{ name: 'wide' }], turns: [] })
  expect(posedIn(odd, 0, 50)).toEqual([
    { from: 0, to: 50, pose: 'wide', at: -1, byHand: false, sure: null },
  ])
})

test('its own time goes on where it was cut', () => {
  expect(ownStretch(mouth())).toEqual({ low: 100, high: 700 })
  expect(ownTick(mouth(), 1250)).toBe(350)
})
