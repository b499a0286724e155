import { describe, expect, it } from 'vitest'
import cases from './masks.cases.json'
import { frameOfMask, maskShape, outlineOf, type MaskNow } from './masks'

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
  grow: 0,
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
      'inner',
      'turn',
    ])
    const inner = grips.find((one) => one.id === 'inner')
    expect(inner).toMatchObject(frame.to({ x: 0.1 - 0.1 + 0.025, y: 0 }))
    const softer = maskShape({ ...mask, inwards: 0.06 }, frame)
    expect(softer.grips.find((one) => one.id === 'inner')).toMatchObject(
      frame.to({ x: 0.1 - 0.1 + 0.06, y: 0 }),
    )
    expect(softer.inner).not.toBe('')
    expect(maskShape(mask, frame).inner).toBe('')
  })
})

/** How far from the middle a closed outline is met in a direction. */
function reach(outline: [number, number][], degrees: number): number {
  const [cos, sin] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)]
  const turned = outline.map(([x, y]) => [x * cos + y * sin, y * cos - x * sin] as const)
  const found = turned.flatMap(([x1, y1], i) => {
    const [x2, y2] = turned[(i + 1) % turned.length] ?? [0, 0]
    if (y1 === y2 || y1 > 0 === y2 > 0) return []
    const x = x1 + ((x2 - x1) * -y1) / (y2 - y1)
    return x > 0 ? [x] : []
  })
  return Math.max(...found)
}

describe('outlines of masks', () => {
  it.each(cases)('are where the core draws the edge: $mask.kind at $level', (one) => {
    const outline = outlineOf(one.mask as unknown as MaskNow, one.level)
    for (const [degrees = 0, far = 0] of one.reach) {
      expect(Math.abs(reach(outline, degrees) - far)).toBeLessThan(0.003)
    }
  })
})
