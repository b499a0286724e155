import type { Clip, Track } from '@/api/types'
import { endOf, startOf } from '@/stores/project'

/** Where one clip ends and the next begins. */
export interface Join {
  /** In ticks: where the later clip starts. */
  at: number
  before: Clip
  after: Clip
}

/** The joins of a track, in order. */
export function joinsOf(track: Track | undefined): Join[] {
  const clips = track?.clips ?? []
  return clips.flatMap((clip, index) => {
    const before = clips[index - 1]
    if (!before || endOf(before) !== startOf(clip)) return []
    return [{ at: startOf(clip), before, after: clip }]
  })
}

/** The joins of the track in hand; where it has none, those of the main track. */
export function joinsNear(tracks: readonly Track[], inHand: Track | undefined): Join[] {
  const mine = joinsOf(inHand)
  return mine.length ? mine : joinsOf(tracks.find((track) => track.kind === 'main'))
}

/** The join nearest a tick. */
export function nearestJoin(joins: readonly Join[], at: number): Join | null {
  return joins.reduce<Join | null>(
    (best, join) => (!best || Math.abs(join.at - at) < Math.abs(best.at - at) ? join : best),
    null,
  )
}
