import { expect, test } from 'vitest'
import { TICKS_PER_SECOND } from '@/api/types'
import {
  bytesLabel,
  clockOf,
  frameOf,
  framesTyped,
  lengthLabel,
  momentOf,
  nearestFrame,
  tickOf,
  timecodeOf,
  wholeClock,
} from './time'

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

test('timecode leaves numbers out where the rate is uneven, and is right after an hour', () => {
  const told = (frame: number) => timecodeOf(frame, NTSC)
  expect([0, 1799, 1800, 17981, 17982].map(told)).toEqual([
    '00:00:00;00',
    '00:00:59;29',
    '00:01:00;02',
    '00:09:59;29',
    '00:10:00;00',
  ])
  expect(told(107892)).toBe('01:00:00;00')
  expect(timecodeOf(3600, { num: 60000, den: 1001 })).toBe('00:01:00;04')
  expect(timecodeOf(1800, { num: 30, den: 1 })).toBe('00:01:00:00')
  expect(timecodeOf(1440, { num: 24000, den: 1001 })).toBe('00:01:00:00')
})

test('every number of timecode is told once', () => {
  const told = Array.from({ length: 20000 }, (_, frame) => timecodeOf(frame, NTSC))
  expect(new Set(told).size).toBe(20000)
  expect(told.toSorted()).toEqual(told)
})

test('a moment is told in the style that is chosen', () => {
  const styles = ['clock', 'timecode', 'frames'] as const
  expect(styles.map((style) => momentOf(104, { num: 30, den: 1 }, style))).toEqual([
    '0:03.14',
    '00:00:03:14',
    '104',
  ])
})

test('a typed moment is read in any of the ways in which it is told', () => {
  const rate = { num: 30, den: 1 }
  const read = (text: string) => framesTyped(text, rate)
  expect(['0:03.14', '1:00.00', '2.5', '2,5 s', '75 f', '00:00:03:14', '1:05'].map(read)).toEqual([
    104, 1800, 75, 75, 75, 104, 1950,
  ])
  expect(['', 'soon', '1:2:3:4:5', '-3'].map(read)).toEqual([null, null, null, null])
})

test('what is told is read as the same frame, at every rate', () => {
  for (const rate of [NTSC, { num: 30, den: 1 }, { num: 24000, den: 1001 }, { num: 25, den: 1 }]) {
    for (const frame of [0, 17, 1799, 1800, 17982, 53999, 107892]) {
      expect(framesTyped(timecodeOf(frame, rate), rate)).toBe(frame)
      if (frame < 100_000) expect(framesTyped(clockOf(frame, rate), rate)).toBe(frame)
    }
  }
})
