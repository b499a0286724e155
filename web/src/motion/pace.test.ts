import { expect, test } from 'vitest'
import type { Clip } from '@/api/types'
import { paceOf } from './pace'

const running = (...speeds: number[]) =>
  ({
    kind: 'video',
    speed: { points: speeds.map((speed, at) => ({ at, speed })) },
  }) as unknown as Clip

test('a pace is told where it is not plain', () => {
  expect(paceOf(running(1))).toBe('')
  expect(paceOf(running(0))).toBe('frozen')
  expect(paceOf(running(0.3333))).toBe('0.33 ×')
  expect(paceOf(running(-1))).toBe('backwards')
  expect(paceOf(running(-2))).toBe('backwards 2 ×')
  expect(paceOf(running(1, 2))).toBe('ramp')
  expect(paceOf({ kind: 'still' } as Clip)).toBe('')
})
