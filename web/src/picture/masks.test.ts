import { describe, expect, it } from 'vitest'
import { frameOfMask, maskShape, type MaskNow } from './masks'

const corners = [
  { x: 100, y: 0 },
  { x: 100, y: 50 },
  { x: 0, y: 50 },
  { x: 0, y: 0 },
]
/** A picture of 50 × 100, turned by a quarter. */
const frame = frameOfMask(corners, 0.5, 2)
const mask: MaskNow = {
  kind: 'ellipse',
  centre: [0.1, 0],
  size: [0.1, 0.2],
  turn: 0,
  radius: 0,
  inwards: 0,
  outwards: 0.05,
}

describe('masks on the picture', () => {
  it('follow the picture where it is turned', () => {
    expect(frame.to({ x: 0, y: 0 })).toEqual({ x: 100, y: 50 })
    const top = frame.to({ x: 0, y: -0.5 })
    expect([top.x, top.y]).toEqual([200, 50])
    const back = frame.back(frame.to({ x: 0.13, y: -0.21 }))
    expect(back.x).toBeCloseTo(0.13)
    expect(back.y).toBeCloseTo(-0.21)
  })

  it('have grips at their sides', () => {
    const { grips } = maskShape(mask, frame)
    const width = grips.find((one) => one.id === 'width')
    const there = frame.to({ x: 0.2, y: 0 })
    expect(width).toMatchObject(there)
    expect(maskShape({ ...mask, kind: 'edge' }, frame).grips.map((one) => one.id)).toEqual([
      'soft',
      'turn',
    ])
  })
})
