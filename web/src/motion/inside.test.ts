import { expect, test } from 'vitest'
import type { GroupClip } from '@/api/types'
import { innerTick, outerTick } from './inside'

const group = (more: object) => ({ kind: 'group', start: 1000, length: 600, ...more }) as GroupClip

test('what is seen of a group that plays twice as fast', () => {
  const fast = group({ source_in: 50, speed: { points: [{ at: 0, speed: 2 }] } })
  expect(innerTick(fast, 1000)).toBe(50)
  expect(innerTick(fast, 1100)).toBe(250)
  expect(outerTick(fast, 250)).toBe(1100)
})

test('backwards the later lies earlier', () => {
  const back = group({ source_in: 600, speed: { points: [{ at: 0, speed: -1 }] } })
  expect(innerTick(back, 1200)).toBe(400)
  expect(Math.abs(outerTick(back, 400) - 1200)).toBeLessThanOrEqual(1)
})

test('a moment that the group leaves out leads to its nearest end', () => {
  const part = group({ source_in: 300 })
  expect(outerTick(part, 10)).toBe(1000)
  expect(outerTick(part, 5000)).toBeGreaterThanOrEqual(1599)
})

test('a ramp is found back within a tick', () => {
  const points = [
    { at: 0, speed: 0.5 },
    { at: 600, speed: 3 },
  ]
  const ramp = group({ speed: { points, soft: true } })
  for (const at of [1001, 1250, 1599]) {
    expect(Math.abs(outerTick(ramp, innerTick(ramp, at)) - at)).toBeLessThanOrEqual(1)
  }
})
