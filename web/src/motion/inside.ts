import type { PacedClip } from '@/api/types'
import { pointsOf, sourceOffset } from './speed'

/** Tick within a group that is shown at one of the timeline around it. */
export function innerTick(group: PacedClip, outer: number): number {
  const soft = group.speed?.soft ?? true
  return (group.source_in ?? 0) + sourceOffset(pointsOf(group.speed), soft, outer - startOf(group))
}

/** Tick of the timeline around a group at which one within it is shown; its nearest if it is not. */
export function outerTick(group: PacedClip, inner: number): number {
  const start = startOf(group)
  let [low, high] = [start, start + group.length]
  const forwards = innerTick(group, high) >= innerTick(group, low)
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2)
    if (innerTick(group, middle) <= inner === forwards) low = middle
    else high = middle
  }
  return low
}

const startOf = (group: PacedClip) => group.start ?? 0
