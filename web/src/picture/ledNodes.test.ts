import { expect, test } from 'vitest'
import { alongOf } from '@/motion/along'
import { boxAround } from '@/motion/quads'
import { ledPath, type Leading } from './ledNodes'
import type { Path } from './pen'

const path: Path = [
  {
    closed: true,
    nodes: [
      { at: [0, 0], before: [-0.1, 0], after: [0.1, 0], join: 'smooth', tracker: 'hand', since: 0 },
      { at: [0.2, 0], before: [0, 0], after: [0, 0], join: 'corner', since: 0 },
      { at: [0.2, 0.2], before: [0, 0], after: [0, 0], join: 'corner', since: 0 },
    ],
  },
]
const hand = alongOf('moves', boxAround([0, 0], 0.1, 0.1), boxAround([0.3, -0.1], 0.1, 0.1))
const leading: Leading = {
  centre: [0.1, 0],
  turn: 90,
  along: null,
  alongOf: (node) => (node.tracker === 'hand' ? hand : null),
}

test('a led point goes its own way, turned as its mask is, and its handles with it', () => {
  const [first, second] = ledPath(path, leading)[0]!.nodes
  // Right by 0.3 and up by 0.1 in the picture is down the other way about for what is turned by 90°.
  expect(first!.at[0]).toBeCloseTo(-0.1)
  expect(first!.at[1]).toBeCloseTo(-0.3)
  expect(first!.after[0]).toBeCloseTo(0.1)
  expect(second!.at).toEqual([0.2, 0])
})

test('it is kept as it was, whatever its mask goes along with', () => {
  const along = alongOf('turns', boxAround([0, 0], 0.1, 0.1), boxAround([0.1, 0.2], 0.2, 0.2))
  const both = { ...leading, along }
  const back = ledPath(ledPath(path, both), both, true)
  back[0]!.nodes.forEach((node, index) => {
    const was = path[0]!.nodes[index]!
    ;(['at', 'before', 'after'] as const).forEach((part) => {
      expect(node[part][0]).toBeCloseTo(was[part][0])
      expect(node[part][1]).toBeCloseTo(was[part][1])
    })
  })
})
