import { expect, test } from 'vitest'
import { alongOf, goneAlong } from './along'
import { boxAround, shifted, swung } from './quads'

const was = boxAround([0.1, 0.2], 0.05, 0.08)
const now = shifted(swung(was, 2, [0.2, 0.4]), 0.1, -0.3)

test('a mask that lies over the thing goes on lying over it, and comes back', () => {
  const along = alongOf('turns', was, now)
  for (const [index, spot] of was.entries()) {
    const there = along.to(spot)
    expect(there[0]).toBeCloseTo(now[index]![0])
    expect(there[1]).toBeCloseTo(now[index]![1])
    expect(along.back(there)[0]).toBeCloseTo(spot[0])
  }
  const mask = { centre: [0.1, 0.2] as [number, number], turn: 10, outwards: 0.02 }
  const gone = goneAlong(mask, along)
  expect(gone.outwards / mask.outwards).toBeCloseTo(along.size)
  const kept = goneAlong(gone, along, true)
  expect(kept.centre[0]).toBeCloseTo(0.1)
  expect(kept.turn).toBeCloseTo(10)
  expect(kept.outwards).toBeCloseTo(0.02)
})

test('with what only moves a mask is neither turned nor sized', () => {
  const along = alongOf('moves', was, now)
  expect([along.size, along.turn]).toEqual([1, 0])
  expect(along.to([0, 0])[1]).toBeCloseTo(-0.3)
})
