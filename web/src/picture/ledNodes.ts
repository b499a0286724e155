import type { PathNode } from '@/api/types'
import type { Along } from '@/motion/along'
import { placeOf, type Path } from './pen'
import { within, type Frame } from './masks'
import type { Point } from './placing'

/** How points that go along by themselves are led, within a mask that may go along, too. */
export interface Leading {
  centre: [number, number]
  turn: number
  /** Of the mask. */
  along: Along | null
  alongOf: (node: PathNode) => Along | null
}

const SAME: Frame = { to: (point) => point, back: (point) => point }

/** From a point as it is kept, to where it is seen in the mask that has gone along; or `back`. */
function way(node: PathNode, { centre, turn, along, alongOf }: Leading, back: boolean) {
  const own = alongOf(node)
  if (!own) return null
  const frame = within(SAME, centre, turn)
  const [first, second] = back ? [along?.to, own.back] : [own.to, along?.back]
  return ([x, y]: [number, number]): [number, number] => {
    const { x: u, y: v } = frame.to({ x, y })
    const once = first ? first([u, v]) : ([u, v] as [number, number])
    const twice = second ? second(once) : once
    const found: Point = frame.back({ x: twice[0], y: twice[1] })
    return [found.x, found.y]
  }
}

/** A path with its led points where they are seen; `back`: as it is kept. */
export function ledPath(path: Path, leading: Leading, back = false): Path {
  return path.map((contour) => ({
    ...contour,
    nodes: contour.nodes.map((node) => {
      const to = way(node, leading, back)
      if (!to) return node
      const at = to(placeOf(node, 'at'))
      const end = (part: 'before' | 'after'): [number, number] => {
        const [x, y] = to(placeOf(node, part))
        return [x - at[0], y - at[1]]
      }
      return { ...node, at, before: end('before'), after: end('after') }
    }),
  }))
}
