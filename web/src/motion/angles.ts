import type { MulticamClip } from '@/api/types'
import { innerTick, outerTick } from './inside'

/** One camera or recorder of a multicam clip, as it is shown. */
export interface Angle {
  index: number
  name: string
  tag: string
  /** Whether it has a picture: only then can it be switched to. */
  seen: boolean
}

/** A stretch of the timeline in which one angle is shown. Ticks. */
export interface Stretch {
  from: number
  to: number
  angle: number
  /** When the switch that begins it lies, in the clip's own time. */
  at: number
}

export function anglesOf(clip: MulticamClip): Angle[] {
  return clip.tracks.map((track, index) => ({
    index,
    name: track.name || `${index + 1}`,
    tag: track.clips?.[0]?.tag ?? '',
    seen: track.kind !== 'sound',
  }))
}

/** What an angle is known by: its digit key, 0 for the tenth; for those behind, their number. */
export const digitOf = (index: number) => (index === 9 ? '0' : `${index + 1}`)

/** The angle that is shown at a tick of the timeline. */
export function angleAt(clip: MulticamClip, tick: number): number {
  const inner = innerTick(clip, tick)
  return (clip.switches.findLast((one) => one.at <= inner) ?? clip.switches[0])?.angle ?? 0
}

/** What of the clip is seen of which angle, in order of its own time. */
export function stretchesOf(clip: MulticamClip): Stretch[] {
  const [start, end] = [clip.start ?? 0, (clip.start ?? 0) + clip.length]
  const [first, last] = [innerTick(clip, start), innerTick(clip, end)]
  const [low, high] = [Math.min(first, last), Math.max(first, last)]
  const outside = (inner: number) =>
    inner === first ? start : inner === last ? end : outerTick(clip, inner)
  return clip.switches.flatMap((one, index) => {
    const next = clip.switches[index + 1]?.at ?? Infinity
    // Begun with recorders alone, or with nothing: none is seen yet.
    if ((clip.tracks[one.angle]?.kind ?? 'sound') === 'sound') return []
    if (next <= low || one.at >= high) return []
    const edges = [outside(Math.max(one.at, low)), outside(Math.min(next, high))]
    const [from, to] = [Math.min(...edges), Math.max(...edges)]
    return [{ from, to, angle: one.angle, at: one.at }]
  })
}
