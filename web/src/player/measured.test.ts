import { expect, it } from 'vitest'
import { unpacked } from './measured'

it('unpacks a picture and its scopes', () => {
  const facts = {
    crushed: 0.25,
    clipped: 0,
    pixels: 4,
    jpeg: 3,
    arrays: [
      { scope: 'luma', shape: [1, 2, 2], wide: false },
      { scope: 'histogram', shape: [4, 1], wide: true },
    ],
  }
  const head = new TextEncoder().encode(JSON.stringify(facts))
  const counts = new Uint8Array(new Uint32Array([1, 2, 3, 70000]).buffer)
  const bytes = new Uint8Array([head.length, 0, 0, 0, ...head, 7, 8, 9, 1, 2, 3, 4, ...counts])
  const { jpeg, measured } = unpacked(bytes.buffer)
  expect([...new Uint8Array(jpeg)]).toEqual([7, 8, 9])
  expect(measured.crushed).toBe(0.25)
  expect([...(measured.scopes.luma?.data ?? [])]).toEqual([1, 2, 3, 4])
  expect([...(measured.scopes.histogram?.data ?? [])]).toEqual([1, 2, 3, 70000])
})
