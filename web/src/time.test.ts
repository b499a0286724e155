import { expect, test } from 'vitest'
import { TICKS_PER_SECOND } from '@/api/types'
import { bytesLabel, clockOf, frameOf, lengthLabel, nearestFrame, tickOf, wholeClock } from './time'

const NTSC = { num: 30000, den: 1001 }

test('every frame of an uneven rate comes back, also after three hours', () => {
  for (const frame of [0, 1, 29, 30, 1799, 323676]) {
    expect(frameOf(tickOf(frame, NTSC), NTSC)).toBe(frame)
    expect(frameOf(tickOf(frame + 1, NTSC) - 1, NTSC)).toBe(frame)
    expect(nearestFrame(tickOf(frame, NTSC) + 7, NTSC)).toBe(frame)
  }
})

test('labels are short', () => {
  expect(clockOf(104, { num: 30, den: 1 })).toBe('0:03.14')
  expect(wholeClock(3725)).toBe('1:02:05')
  expect(lengthLabel(4.2 * TICKS_PER_SECOND)).toBe('4.2 s')
  expect(lengthLabel(65 * TICKS_PER_SECOND)).toBe('1:05')
  expect(bytesLabel(11_400_000)).toBe('11.4 MB')
})
