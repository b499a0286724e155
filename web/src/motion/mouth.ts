import type { MouthClip } from '@/api/types'
import { innerTick, outerTick } from './inside'

/** A stretch of a mouth's own time in which it has one pose. */
export interface Posed {
  from: number
  to: number
  pose: string
  /** When the turn that begins it lies; -1 before the first. */
  at: number
  byHand: boolean
  /** How surely it was found in a voice, 0..1. */
  sure: number | null
}

const REST = 'closed'

export const posesOf = (clip: MouthClip): string[] => clip.tracks.map((track) => track.name ?? '')

/** The pose that is shown for a name: that of rest, or the first, where there is none of it. */
function shown(poses: string[], name: string): string {
  if (poses.includes(name)) return name
  return poses.includes(REST) ? REST : (poses[0] ?? '')
}

/** What a mouth does between two moments of its own time. */
export function posedIn(clip: MouthClip, low: number, high: number): Posed[] {
  const poses = posesOf(clip)
  const turns = clip.turns ?? []
  const rows = turns.map((turn, index) => ({
    from: turn.at,
    to: turns[index + 1]?.at ?? Infinity,
    pose: shown(poses, turn.pose),
    at: turn.at,
    byHand: turn.by_hand ?? false,
    sure: turn.sure ?? null,
  }))
  const rest = { from: 0, at: -1, pose: shown(poses, REST), byHand: false, sure: null }
  return [{ ...rest, to: turns[0]?.at ?? Infinity }, ...rows]
    .filter(({ from, to }) => from < high && to > low && to > from)
    .map((one) => ({ ...one, from: Math.max(one.from, low), to: Math.min(one.to, high) }))
}

/** The stretch of a mouth's own time that is shown. */
export function ownStretch(clip: MouthClip): { low: number; high: number } {
  const start = clip.start ?? 0
  const ends = [innerTick(clip, start), innerTick(clip, start + clip.length)]
  return { low: Math.max(0, Math.min(...ends)), high: Math.max(1, ...ends) }
}

export const ownTick = (clip: MouthClip, tick: number): number =>
  Math.max(0, Math.round(innerTick(clip, tick)))

export const filmTick = (clip: MouthClip, own: number): number => outerTick(clip, own)
