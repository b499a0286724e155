import { expect, test } from 'vitest'
import { peakDb, wavOf } from './wav'

test('a WAV file holds its samples and says so', async () => {
  const file = new DataView(
    await wavOf([new Float32Array([0, 0.5]), new Float32Array([-1])], 48_000).arrayBuffer(),
  )
  expect(file.byteLength).toBe(44 + 6)
  expect(file.getUint32(24, true)).toBe(48_000)
  expect(file.getUint32(40, true)).toBe(6)
  expect([44, 46, 48].map((at) => file.getInt16(at, true))).toEqual([0, 16384, -32767])
})

test('levels are those of the loudest sample', () => {
  expect(peakDb([0, -0.5, 0.1])).toBeCloseTo(-6.02, 2)
  expect(peakDb([])).toBe(-60)
})
