import type { Contour, PathNode } from '@/api/types'
import type { Point } from './placing'

/** Pen paths as the page reads and changes them; every function gives a new path. */

export type Path = Contour[]
/** A node of a path: which contour, which of its nodes. */
export interface Spot {
  contour: number
  node: number
}
export type Part = 'at' | 'before' | 'after'
type Pair = [number, number]

const pair = (point: readonly number[] | undefined): Pair => [point?.[0] ?? 0, point?.[1] ?? 0]
const plus = (a: Pair, b: Pair): Pair => [a[0] + b[0], a[1] + b[1]]

export function nodeAt(path: Path, spot: Spot | null): PathNode | null {
  return (spot && path[spot.contour]?.nodes[spot.node]) ?? null
}

/** Where a node, or the end of one of its handles, is. */
export function placeOf(node: PathNode, part: Part): Pair {
  const at = pair(node.at)
  return part === 'at' ? at : plus(at, pair(node[part]))
}

function changed(path: Path, spot: Spot, change: (node: PathNode) => PathNode): Path {
  return path.map((contour, c) =>
    c !== spot.contour
      ? contour
      : {
          ...contour,
          nodes: contour.nodes.map((node, n) => (n === spot.node ? change(node) : node)),
        },
  )
}

/** With a node, or one of its handles, moved to a place; a smooth node's other handle turns along. */
export function moved(path: Path, spot: Spot, part: Part, to: Pair): Path {
  return changed(path, spot, (node) => {
    if (part === 'at') return { ...node, at: to }
    const at = pair(node.at)
    const handle: Pair = [to[0] - at[0], to[1] - at[1]]
    const other = part === 'after' ? 'before' : 'after'
    if (node.join !== 'smooth') {
      const join = node.join === 'corner' ? 'broken' : node.join
      return { ...node, [part]: handle, join }
    }
    return { ...node, [part]: handle, [other]: opposite(handle, pair(node[other])) }
  })
}

/** A handle in line with another one, as long as it was. */
function opposite(handle: Pair, other: Pair): Pair {
  const long = Math.hypot(...handle)
  if (!long) return other
  const scale = Math.hypot(...other) / long
  return [-handle[0] * scale, -handle[1] * scale]
}

/** With a node joined otherwise: a corner loses its handles, a smooth node gets some. */
export function joined(path: Path, spot: Spot, join: NonNullable<PathNode['join']>): Path {
  if (join === 'corner') {
    return changed(path, spot, (node) => ({ ...node, join, before: [0, 0], after: [0, 0] }))
  }
  if (join === 'broken') return changed(path, spot, (node) => ({ ...node, join }))
  const contour = path[spot.contour]
  const count = contour?.nodes.length ?? 0
  const beside = (by: number) => {
    const index = spot.node + by
    const wrapped = contour?.closed === false ? index : (index + count) % count
    return pair(contour?.nodes[wrapped]?.at ?? contour?.nodes[spot.node]?.at)
  }
  const [before, after] = [beside(-1), beside(1)]
  const way: Pair = [(after[0] - before[0]) / 6, (after[1] - before[1]) / 6]
  return changed(path, spot, (node) => ({
    ...node,
    join,
    before: [-way[0], -way[1]],
    after: way,
  }))
}

/** With other values of a node. */
export const withValues = (path: Path, spot: Spot, values: Partial<PathNode>): Path =>
  changed(path, spot, (node) => ({ ...node, ...values }))

/** Without a node; a contour with fewer than two goes away. */
export function without(path: Path, spot: Spot): Path {
  return path
    .map((contour, c) =>
      c === spot.contour
        ? { ...contour, nodes: contour.nodes.filter((_, n) => n !== spot.node) }
        : contour,
    )
    .filter((contour) => contour.nodes.length > 1)
}

/** With a node after another one's, on the curve at a share of the way, the shape as it was. */
export function split(path: Path, spot: Spot, share = 0.5): Path {
  const contour = path[spot.contour]
  const count = contour?.nodes.length ?? 0
  const a = contour?.nodes[spot.node]
  const next = (spot.node + 1) % count
  const b = contour?.nodes[next]
  if (!contour || !a || !b || (contour.closed === false && spot.node === count - 1)) return path
  const mix = (p: Pair, q: Pair): Pair => [
    p[0] + (q[0] - p[0]) * share,
    p[1] + (q[1] - p[1]) * share,
  ]
  const from = (o: Pair, p: Pair): Pair => [p[0] - o[0], p[1] - o[1]]
  const [p0, p1, p2, p3] = [pair(a.at), placeOf(a, 'after'), placeOf(b, 'before'), pair(b.at)]
  const [p01, p12, p23] = [mix(p0, p1), mix(p1, p2), mix(p2, p3)]
  const [p012, p123] = [mix(p01, p12), mix(p12, p23)]
  const middle = mix(p012, p123)
  const straight = !Math.hypot(...pair(a.after)) && !Math.hypot(...pair(b.before))
  const fresh: PathNode = straight
    ? { at: middle, before: [0, 0], after: [0, 0], join: 'corner', since: 0 }
    : {
        at: middle,
        before: from(middle, p012),
        after: from(middle, p123),
        join: 'smooth',
        since: 0,
      }
  const nodes = contour.nodes.map((node, index) => {
    if (straight) return node
    if (index === spot.node) return { ...node, after: from(p0, p01) }
    return index === next ? { ...node, before: from(p3, p23) } : node
  })
  nodes.splice(spot.node + 1, 0, fresh)
  return path.map((one, index) => (index === spot.contour ? { ...one, nodes } : one))
}

/** With a node at the end of an open contour; without one, a new contour begins. */
export function extended(path: Path, at: Pair): Path {
  const node: PathNode = { at, before: [0, 0], after: [0, 0], join: 'corner', since: 0 }
  const last = path.at(-1)
  if (!last || last.closed !== false) return [...path, { nodes: [node], closed: false }]
  return [...path.slice(0, -1), { ...last, nodes: [...last.nodes, node] }]
}

export function closed(path: Path, contour: number): Path {
  return path.map((one, index) => (index === contour ? { ...one, closed: true } : one))
}

/** The path as SVG writes it, its points led through `to`. */
export function svgPath(path: Path, to: (point: Point) => Point): string {
  const text = (p: Pair) => {
    const { x, y } = to({ x: p[0], y: p[1] })
    return `${x.toFixed(1)} ${y.toFixed(1)}`
  }
  return path.map((contour) => segments(contour, text)).join('')
}

function segments(contour: Contour, text: (p: Pair) => string): string {
  const [first] = contour.nodes
  if (!first) return ''
  const ends =
    contour.closed === false ? contour.nodes.slice(1) : [...contour.nodes.slice(1), first]
  const curves = ends.map((b, index) => {
    const a = contour.nodes[index] ?? first
    return `C${text(placeOf(a, 'after'))} ${text(placeOf(b, 'before'))} ${text(pair(b.at))}`
  })
  return `M${text(pair(first.at))}${curves.join('')}${contour.closed === false ? '' : 'Z'}`
}

/** The stretch nearest to a point, and how far along and away that is. */
export function nearest(
  path: Path,
  point: Point,
): { spot: Spot; share: number; away: number } | null {
  let best: { spot: Spot; share: number; away: number } | null = null
  path.forEach((contour, c) => {
    const count = contour.nodes.length
    contour.nodes.forEach((a, n) => {
      const b = contour.nodes[(n + 1) % count]
      if (!b || (contour.closed === false && n === count - 1)) return
      const p = [pair(a.at), placeOf(a, 'after'), placeOf(b, 'before'), pair(b.at)] as const
      for (let step = 1; step < 24; step++) {
        const t = step / 24
        const w = [(1 - t) ** 3, 3 * (1 - t) ** 2 * t, 3 * (1 - t) * t * t, t ** 3] as const
        const x = w[0] * p[0][0] + w[1] * p[1][0] + w[2] * p[2][0] + w[3] * p[3][0]
        const y = w[0] * p[0][1] + w[1] * p[1][1] + w[2] * p[2][1] + w[3] * p[3][1]
        const away = Math.hypot(x - point.x, y - point.y)
        if (!best || away < best.away) best = { spot: { contour: c, node: n }, share: t, away }
      }
    })
  })
  return best
}
