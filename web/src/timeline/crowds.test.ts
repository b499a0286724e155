import { describe, expect, it } from 'vitest'
import { TICKS_PER_SECOND, type Clip } from '@/api/types'
import { boxesPath, crowded, leastAlone } from '@/timeline/crowds'

/** Clips of a second each, some seconds after the one before. */
function row(count: number, gap = 0): Clip[] {
  return Array.from({ length: count }, (_, n) => ({
    kind: 'solid' as const,
    id: `c${n}`,
    name: `c${n}`,
    start: n * (1 + gap) * TICKS_PER_SECOND,
    length: TICKS_PER_SECOND,
    fill: { kind: 'plain' as const },
  })) as Clip[]
}

describe('crowded', () => {
  it('draws each clip by itself where it is wide enough', () => {
    const { alone, crowds } = crowded(row(20), 3, () => false)
    expect(alone.map(({ left, width }) => [left, width])).toEqual(
      Array.from({ length: 20 }, (_, n) => [n * 3, 3]),
    )
    expect(crowds).toEqual([])
  })

  it('draws those that are too narrow as one, from the first to the last', () => {
    const { alone, crowds } = crowded(row(5000), 0.25, () => false)
    expect(alone).toEqual([])
    expect(crowds).toEqual([{ left: 0, width: 1250, count: 5000 }])
  })

  it('parts them where there is room between them', () => {
    const { crowds } = crowded(row(4, 9), 0.5, () => false)
    expect(crowds.map(({ left, count }) => [left, count])).toEqual([
      [0, 1],
      [5, 1],
      [10, 1],
      [15, 1],
    ])
  })

  it('draws what is wanted by itself, too, wide enough to be seen', () => {
    const { alone, crowds } = crowded(row(100), 1, (clip) => clip.id === 'c7')
    expect(alone.map(({ clip, left, width }) => [clip.id, left, width])).toEqual([['c7', 7, 3]])
    expect(crowds).toEqual([{ left: 0, width: 100, count: 100 }])
  })

  it('paints those together that are narrower than wanted, crowds and what is in hand apart', () => {
    const wide = {
      ...row(1)[0],
      id: 'wide',
      start: 9 * TICKS_PER_SECOND,
      length: 30 * TICKS_PER_SECOND,
    }
    const { alone, plain, crowds } = crowded(
      [...row(9), wide as Clip],
      4,
      (clip) => clip.id === 'c2',
      100,
    )
    expect(alone.map(({ clip }) => clip.id)).toEqual(['c2', 'wide'])
    expect(plain.map(({ clip, left, width }) => [clip.id, left, width])).toEqual(
      [0, 1, 3, 4, 5, 6, 7, 8].map((n) => [`c${n}`, n * 4, 4]),
    )
    expect(crowds).toEqual([])
  })

  it('asks for that only while the scale changes and many are near', () => {
    expect(leastAlone(500, false)).toBe(leastAlone(5, true))
    expect(leastAlone(500, true)).toBeGreaterThan(leastAlone(500, false))
  })
})

describe('boxesPath', () => {
  it('goes around each box, a pixel short of the next', () => {
    const { plain } = crowded(row(2), 10, () => false, 100)
    expect(boxesPath(plain, 40)).toBe('M0.0 0h9.0v40H0.0zM10.0 0h9.0v40H10.0z')
  })
})
