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
/** Pixels between two clips from which on they are not one crowd. */
const APART = 2

/** The clips of a row, each by itself where it is wide enough, or wanted by itself; others in crowds. */
export function crowded(
  clips: readonly Clip[],
  pxPerSecond: number,
  single: (clip: Clip) => boolean,
): { alone: Shown[]; crowds: Crowd[] } {
  const alone: Shown[] = []
  const crowds: Crowd[] = []
  for (const clip of clips) {
    const left = toPx(startOf(clip), pxPerSecond)
    const width = toPx(endOf(clip), pxPerSecond) - left
    if (width >= NARROW || single(clip)) {
      alone.push({ clip, left, width: Math.max(NARROW, width) })
      if (width >= NARROW) continue
    }
    const last = crowds.at(-1)
    if (last && left - (last.left + last.width) < APART) {
      last.width = left + width - last.left
      last.count += 1
    } else crowds.push({ left, width: Math.max(width, 1), count: 1 })
  }
  return { alone, crowds }
}
