import { describe, expect, it } from 'vitest'
import {
  axesOf,
  curveOf,
  handleAt,
  heightAt,
  linesOf,
  rangeOf,
  speedHandleAt,
  speedsOf,
  stretched,
  withHandle,
  withKeyMoved,
  withKeysAt,
  withSpeedHandle,
} from './graph'

const prop = {
  keys: [
    { at: 0, value: 0 },
    { at: 100, value: 50, ease: { kind: 'bezier', x1: 0.5, y1: 0, x2: 0.5, y2: 1 } },
    { at: 200, value: 10 },
  ],
}
const time = { low: 0, high: 200 }

describe('a graph', () => {
  it('has a curve for each number of a value', () => {
    expect(axesOf(3)).toEqual(['Value'])
    expect(axesOf([1, 2])).toEqual(['Across', 'Down'])
    expect(axesOf('#ffffff')).toEqual([])
    expect(axesOf([[0, 0]])).toEqual([])
  })

  it('goes through its keys, and for what is no number from key to key', () => {
    const curve = new Map(curveOf(prop, 0, time))
    expect([curve.get(0), curve.get(100), curve.get(200)]).toEqual([0, 50, 10])
    const colours = { keys: prop.keys.map((key) => ({ ...key, value: '#000000' })) }
    const heights = [50, 100, 150, 300].map((at) => heightAt(colours, 0, at).toFixed(3))
    expect(heights.map(Number)).toEqual([0.5, 1, 1.5, 2])
  })

  it('has a scale of round steps', () => {
    expect(linesOf({ low: -3, high: 47 }, 5)).toEqual([0, 10, 20, 30, 40])
    const { low, high } = rangeOf([5, 5], 1)
    expect(low).toBeLessThan(5)
    expect(high).toBeGreaterThan(5)
  })

  it('has handles where the ease says', () => {
    expect(handleAt(prop, 0, 1, 'after')).toEqual([150, 50])
    expect(handleAt(prop, 0, 2, 'before')).toEqual([150, 10])
    const [at = 0, height = 0] = handleAt(prop, 0, 1, 'before') ?? []
    expect([at, height].map(Math.round)).toEqual([67, 33])
    expect(handleAt(prop, 0, 0, 'before')).toBeNull()
  })

  it('keeps linked handles in line and leaves broken ones', () => {
    const linked = withHandle(prop, 0, 1, 'after', [150, 70], true)
    const slope = (side: 'after' | 'before') => {
      const [at = 0, height = 0] = handleAt(linked, 0, 1, side) ?? []
      return (height - 50) / (at - 100)
    }
    expect(slope('after')).toBeCloseTo(0.4, 2)
    expect(slope('before')).toBeCloseTo(0.4, 2)
    const broken = withHandle(prop, 0, 1, 'after', [150, 70], false)
    expect(broken.keys[0]).toEqual(prop.keys[0])
  })

  it('shows speeds that agree with its handles', () => {
    const speeds = new Map(speedsOf(prop, 0, time, 100))
    expect(speeds.get(50)).toBeCloseTo(50)
    expect(speedHandleAt(prop, 0, 0, 'after', 100)?.[1]).toBeCloseTo(50)
    const faster = withSpeedHandle(prop, 0, 1, 'after', [150, -60], false, 100)
    expect(speedHandleAt(faster, 0, 1, 'after', 100)?.[1]).toBeCloseTo(-60)
  })

  it('lets a dragged key go over another one', () => {
    const moved = withKeyMoved(prop, 0, 0, 100, 7)
    expect(moved.keys.map(({ at, value }) => [at, value])).toEqual([
      [100, 7],
      [200, 10],
    ])
  })
})

describe('keys that are stretched', () => {
  it('stay on frames, counted from the one that stays', () => {
    expect([0, 100, 200].map((at) => stretched(at, 0, 1.5, 10))).toEqual([0, 150, 300])
    expect([0, 100, 200].map((at) => stretched(at, 200, 0.52, 10))).toEqual([100, 150, 200])
  })

  it('push away keys that they come onto', () => {
    const found = withKeysAt(
      prop,
      new Map([
        [0, 40],
        [100, 200],
      ]),
    )
    expect(found.keys.map(({ at, value }) => [at, value])).toEqual([
      [40, 0],
      [200, 50],
    ])
  })
})
