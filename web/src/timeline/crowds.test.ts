import { describe, expect, it } from 'vitest'
import { TICKS_PER_SECOND, type Clip } from '@/api/types'
import { crowded } from '@/timeline/crowds'

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
})
