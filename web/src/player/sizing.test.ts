import { expect, test } from 'vitest'
import { ref } from 'vue'
import type { Quality } from '@/stores/viewing'
import { useSizing } from './sizing'

function sizing(quality: Quality = 'auto') {
  const chosen = ref(quality)
  return { chosen, ...useSizing(chosen) }
}

test('pieces that come too late become smaller, and larger again where they come early', () => {
  const one = sizing()
  expect(one.size.value).toBe('half')
  one.came(0.5, 0.6)
  expect(one.size.value).toBe('half')
  one.came(0.5, 0.6)
  expect(one.size.value).toBe('quarter')
  for (let piece = 0; piece < 5; piece += 1) one.came(0.5, 0.1)
  expect(one.size.value).toBe('quarter')
  one.came(0.5, 0.1)
  expect(one.size.value).toBe('half')
})

test('one late piece among others changes nothing', () => {
  const one = sizing()
  for (const took of [0.6, 0.2, 0.6, 0.2, 0.6]) one.came(0.5, took)
  expect(one.size.value).toBe('half')
})

test('a chosen size stays, however late pieces come', () => {
  const one = sizing('full')
  one.came(0.5, 9)
  one.came(0.5, 9)
  expect(one.size.value).toBe('full')
  one.chosen.value = 'auto'
  expect(one.size.value).toBe('quarter')
})
