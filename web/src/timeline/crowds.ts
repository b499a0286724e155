import type { Clip } from '@/api/types'
import { endOf, startOf } from '@/stores/project'
import { toPx } from '@/timeline/scale'

/** A clip that is drawn, and where, in pixels. */
export interface Shown {
  clip: Clip
  left: number
  width: number
}

/** Clips in a row that are too narrow to be told apart: they are drawn as one. */
export interface Crowd {
  left: number
  width: number
  count: number
}

/** Pixels: narrower clips are drawn with their neighbours as one, by themselves as wide as this. */
export const NARROW = 3
/** Pixels: narrower clips are a plain tint. */
export const TINY = 14
/** Pixels between two clips from which on they are not one crowd. */
const APART = 2

/** A row of clips as it is drawn. */
export interface Row {
  /** Each by itself. */
  alone: Shown[]
  /** Painted together, as plain boxes. */
  plain: Shown[]
  crowds: Crowd[]
}

/** Clips of all rows from which on narrow ones are plain boxes while the scale changes. */
const MANY = 24
/** Pixels: such a narrow one. */
const SLENDER = 120

/** Pixels from which on clips are drawn by themselves, so many being near. */
export function leastAlone(count: number, zooming: boolean): number {
  return zooming && count > MANY ? SLENDER : NARROW
}

/**
 * The clips of a row: by themselves from a width on, or where that is wanted; narrower ones as plain
 * boxes, the narrowest in crowds.
 */
export function crowded(
  clips: readonly Clip[],
  pxPerSecond: number,
  single: (clip: Clip) => boolean,
  least = NARROW,
): Row {
  const alone: Shown[] = []
  const plain: Shown[] = []
  const crowds: Crowd[] = []
  for (const clip of clips) {
    const left = toPx(startOf(clip), pxPerSecond)
    const width = toPx(endOf(clip), pxPerSecond) - left
    const apart = width >= least || single(clip)
    if (apart) alone.push({ clip, left, width: Math.max(NARROW, width) })
    else if (width >= NARROW) plain.push({ clip, left, width })
    if (width >= NARROW) continue
    const last = crowds.at(-1)
    if (last && left - (last.left + last.width) < APART) {
      last.width = left + width - last.left
      last.count += 1
    } else crowds.push({ left, width: Math.max(width, 1), count: 1 })
  }
  return { alone, plain, crowds }
}

/** The outline of boxes, each a pixel short of the next, as a path of SVG. */
export function boxesPath(boxes: readonly Shown[], height: number): string {
  return boxes
    .map(
      ({ left, width }) =>
        `M${left.toFixed(1)} 0h${(width - 1).toFixed(1)}v${height}H${left.toFixed(1)}z`,
    )
    .join('')
}
