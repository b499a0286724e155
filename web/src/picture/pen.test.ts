import { expect, test } from 'vitest'
import {
  closed,
  extended,
  joined,
  moved,
  nearest,
  nodeAt,
  placeOf,
  split,
  svgPath,
  without,
} from './pen'
import type { PathNode } from '@/api/types'
import type { Path } from './pen'

const knot = (at: [number, number], more: Partial<PathNode> = {}): PathNode => ({
  at,
  since: 0,
  before: [0, 0],
  after: [0, 0],
  join: 'corner',
  ...more,
})
const line: Path = [{ nodes: [knot([0, 0]), knot([10, 0]), knot([10, 10])], closed: true }]
const spot = (node: number) => ({ contour: 0, node })

test('a smooth node keeps its handles in line, a broken one does not', () => {
  const smooth = joined(line, spot(1), 'smooth')
  const turned = moved(smooth, spot(1), 'after', [10, 5])
  const node = nodeAt(turned, spot(1))
  expect(node?.after).toEqual([0, 5])
  expect(node?.before?.[0]).toBeCloseTo(0)
  expect(node?.before?.[1]).toBeLessThan(0)
  const broken = moved(joined(smooth, spot(1), 'broken'), spot(1), 'after', [30, 0])
  expect(nodeAt(broken, spot(1))?.before).toEqual(nodeAt(smooth, spot(1))?.before)
})

test('a handle pulled out of a corner breaks it, and a corner takes handles away', () => {
  const pulled = moved(line, spot(0), 'after', [3, 3])
  expect(nodeAt(pulled, spot(0))).toMatchObject({ after: [3, 3], join: 'broken' })
  expect(nodeAt(joined(pulled, spot(0), 'corner'), spot(0))?.after).toEqual([0, 0])
})

test('a node set into a curve leaves its shape as it is', () => {
  const curve: Path = [
    {
      nodes: [knot([0, 0], { after: [0, 8] }), knot([10, 0], { before: [0, 8] })],
      closed: false,
    },
  ]
  const done = split(curve, spot(0), 0.5)
  expect(done[0]?.nodes.map((node) => node.at)).toEqual([
    [0, 0],
    [5, 6],
    [10, 0],
  ])
  expect(done[0]?.nodes[1]).toMatchObject({ before: [-2.5, 0], after: [2.5, 0], join: 'smooth' })
  expect(split(curve, spot(1))).toBe(curve)
})

test('drawn node by node, closed, and taken apart again', () => {
  let path: Path = []
  for (const at of [
    [0, 0],
    [4, 0],
    [4, 4],
  ] as [number, number][])
    path = extended(path, at)
  expect(path).toHaveLength(1)
  path = closed(path, 0)
  expect(svgPath(path, (p) => p)).toMatch(/^M0\.0 0\.0C.*Z$/)
  expect(extended(path, [9, 9])).toHaveLength(2)
  expect(without(without(path, spot(0)), spot(0))).toEqual([])
})

test('finds the stretch under a finger', () => {
  expect(nearest(line, { x: 5, y: 1 })).toMatchObject({ spot: spot(0), share: 0.5, away: 1 })
  expect(placeOf(knot([1, 1], { before: [2, 0] }), 'before')).toEqual([3, 1])
  expect(nearest([], { x: 0, y: 0 })).toBeNull()
})
