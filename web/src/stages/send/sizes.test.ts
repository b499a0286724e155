import { expect, test } from 'vitest'
import { sizeAt } from './sizes'

test('sizes are even, keep their shape and never grow', () => {
  expect(sizeAt({ width: 1080, height: 1920 }, 640)).toEqual({ width: 360, height: 640 })
  expect(sizeAt({ width: 1920, height: 1080 }, 960)).toEqual({ width: 960, height: 540 })
  expect(sizeAt({ width: 640, height: 640 }, 1280)).toEqual({ width: 640, height: 640 })
  const odd = sizeAt({ width: 1080, height: 1350 }, 641)
  expect([odd.width % 2, odd.height % 2]).toEqual([0, 0])
})
