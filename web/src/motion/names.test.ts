import { expect, test } from 'vitest'
import type { PicturedClip } from '@/api/types'
import { nameOf } from './names'

const clip = {
  effects: [{ id: 'a', kind: 'soft_blur' }],
  warp: { pins: [{ id: 'p' }, { id: 'q' }] },
} as unknown as PicturedClip

test('properties have names that people know', () => {
  expect(nameOf(clip, 'place/turn')).toBe('Turn')
  expect(nameOf(clip, 'effects/a/radius')).toBe('Soft blur radius')
  expect(nameOf(clip, 'warp/pins/q/at')).toBe('Pin 2')
  expect(nameOf(clip, 'place/position/down')).toBe('Position, down')
  expect(nameOf(clip, 'crop/left')).toBe('Crop left')
})
