import type { Contour, PathNode } from '@/api/types'
import type { Vector } from './spatial'

/** Between two pen paths, point by point, as the core does it. */

type Node = Required<PathNode>

/**
 * Contours and points are matched in order. Where one contour has fewer points some are added to it
 * without a change of its shape; one without a partner grows from its middle or shrinks into it.
 */
export function contoursBetween(first: Contour[], second: Contour[], share: number): Contour[] {
  const count = Math.max(first.length, second.length)
  return Array.from({ length: count }, (_, index) => {
    const [a, b] = partners(first[index], second[index])
    const nodes = a.nodes.map((node, at) => nodeBetween(whole(node), whole(b.nodes[at]), share))
    return { nodes, closed: (share < 0.5 ? a.closed : b.closed) ?? true }
  })
}

const ZERO: Vector = [0, 0]

function whole(node: PathNode | undefined): Node {
  return { at: ZERO, before: ZERO, after: ZERO, join: 'corner', tracker: null, since: 0, ...node }
}

function nodeBetween(a: Node, b: Node, share: number): Node {
  const mix = (part: 'at' | 'before' | 'after') => mixed(a[part], b[part], share)
  return {
    at: mix('at'),
    before: mix('before'),
    after: mix('after'),
    join: share < 0.5 ? a.join : b.join,
    tracker: (share < 0.5 ? a : b).tracker ?? null,
    since: (share < 0.5 ? a : b).since,
  }
}

function mixed(a: Vector, b: Vector, share: number): Vector {
  return [a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share]
}

function partners(a: Contour | undefined, b: Contour | undefined): [Contour, Contour] {
  if (!a) return [middleOf(b as Contour), b as Contour]
  if (!b) return [a, middleOf(a)]
  const count = Math.max(a.nodes.length, b.nodes.length)
  return [withNodes(a, count), withNodes(b, count)]
}

/** The contour shrunk into its middle. */
function middleOf(contour: Contour): Contour {
  const count = contour.nodes.length
  const sum = (axis: 0 | 1) => contour.nodes.reduce((all, { at }) => all + at[axis], 0)
  const node = whole({ at: [sum(0) / count, sum(1) / count] } as PathNode)
  return { ...contour, nodes: contour.nodes.map(() => node) }
}

/** The same curve with more points: its longest stretches are halved (de Casteljau). */
function withNodes(contour: Contour, count: number): Contour {
  let nodes = contour.nodes.map(whole)
  while (nodes.length < count) nodes = halved(nodes, longest(nodes, contour.closed ?? true))
  return { ...contour, nodes }
}

/** The node after which the longest stretch begins, along its chord. */
function longest(nodes: Node[], closed: boolean): number {
  const lengths = nodes.slice(0, closed ? undefined : -1).map((node, index) => {
    const next = nodes[(index + 1) % nodes.length] ?? node
    return (node.at[0] - next.at[0]) ** 2 + (node.at[1] - next.at[1]) ** 2
  })
  return lengths.length ? lengths.indexOf(Math.max(...lengths)) : 0
}

function halved(nodes: Node[], index: number): Node[] {
  const following = (index + 1) % nodes.length
  const [a, b] = [whole(nodes[index]), whole(nodes[following])]
  if (nodes.length === 1) return [a, whole({ at: a.at } as PathNode)]
  const [p0, p3] = [a.at, b.at] as [Vector, Vector]
  const [p1, p2] = [plus(p0, a.after), plus(p3, b.before)]
  const [p01, p12, p23] = [mixed(p0, p1, 0.5), mixed(p1, p2, 0.5), mixed(p2, p3, 0.5)]
  const [p012, p123] = [mixed(p01, p12, 0.5), mixed(p12, p23, 0.5)]
  const at = mixed(p012, p123, 0.5)
  const made = [...nodes]
  made[index] = { ...a, after: minus(p01, p0) }
  made[following] = { ...b, before: minus(p23, p3) }
  const node = { at, before: minus(p012, at), after: minus(p123, at), join: 'smooth' } as Node
  made.splice(index + 1, 0, node)
  return made
}

const plus = (a: Vector, b: Vector): Vector => [a[0] + b[0], a[1] + b[1]]
const minus = (a: Vector, b: Vector): Vector => [a[0] - b[0], a[1] - b[1]]
