import type { RetouchStroke } from '@/api/types'
import { boxAround, type Quad, type Spot } from '@/motion/quads'
import type { RetouchTool } from '@/stores/retouching'
import { t } from '@/texts'

/** What strokes are painted with: a kind of stroke, and values of it that make the tool. */
export const TOOLS: {
  id: RetouchTool
  kind: RetouchStroke['kind']
  name: string
  help: string
  fresh?: Record<string, number>
}[] = [
  {
    id: 'heal',
    kind: 'heal_stroke',
    name: t('layer.retouch.heal'),
    help: t('layer.retouch.healHelp'),
  },
  {
    id: 'clone',
    kind: 'clone_stroke',
    name: t('layer.retouch.clone'),
    help: t('layer.retouch.cloneHelp'),
  },
  {
    id: 'fill',
    kind: 'fill_stroke',
    name: t('layer.retouch.fill'),
    help: t('layer.retouch.fillHelp'),
  },
  {
    id: 'soften',
    kind: 'soften_stroke',
    name: t('layer.retouch.soften'),
    help: t('layer.retouch.softenHelp'),
  },
  {
    id: 'sharpen',
    kind: 'sharpen_stroke',
    name: t('layer.retouch.sharpen'),
    help: t('layer.retouch.sharpenHelp'),
  },
  {
    id: 'lighten',
    kind: 'light_stroke',
    name: t('layer.retouch.lighten'),
    help: t('layer.retouch.lightenHelp'),
    fresh: { stops: 0.5 },
  },
  {
    id: 'darken',
    kind: 'light_stroke',
    name: t('layer.retouch.darken'),
    help: t('layer.retouch.darkenHelp'),
    fresh: { stops: -0.5 },
  },
]

export const toolOf = (id: RetouchTool) => TOOLS.find((one) => one.id === id) ?? TOOLS[0]!

/** Whether strokes of a kind take their picture from another place. */
export const takesFrom = (kind: string) => kind === 'heal_stroke' || kind === 'clone_stroke'

export const sourceOf = (stroke: RetouchStroke): Spot | null =>
  stroke.kind === 'heal_stroke' || stroke.kind === 'clone_stroke'
    ? (stroke.source ?? [0.1, 0])
    : null

/** Which way the source of a stroke lies that begins at a spot; null if no place was picked. */
export function offsetFrom(
  begin: Spot,
  picked: { source: Spot | null; offset: Spot | null; goesOn: boolean },
): Spot | null {
  if (!picked.source) return null
  if (picked.goesOn && picked.offset) return picked.offset
  return [picked.source[0] - begin[0], picked.source[1] - begin[1]]
}

/** The middle of the points of a stroke. */
export function middleOfPoints(points: readonly Spot[]): Spot {
  const sum = points.reduce<Spot>(([x, y], [a, b]) => [x + a, y + b], [0, 0])
  return [sum[0] / points.length, sum[1] / points.length]
}

/** Room around a stroke, in its own sizes and in heights of the picture, that is followed with it. */
const ROOM = { share: 1, least: 0.06 }

/** What is followed so that a stroke goes along: what lies around it, within a picture so wide. */
export function surroundings(points: readonly Spot[], width: number, aspect: number): Quad {
  const ends = (at: 0 | 1, edge: number): [number, number] => {
    const all = points.map((spot) => spot[at])
    const [low, high] = [Math.min(...all) - width / 2, Math.max(...all) + width / 2]
    const more = Math.max(ROOM.least, ROOM.share * Math.min(high - low, width))
    return [Math.max(low - more, -edge), Math.min(high + more, edge)]
  }
  const [[left, right], [top, bottom]] = [ends(0, aspect / 2), ends(1, 0.5)]
  return boxAround(
    [(left + right) / 2, (top + bottom) / 2],
    Math.max((right - left) / 2, 0.005),
    Math.max((bottom - top) / 2, 0.005),
  )
}
