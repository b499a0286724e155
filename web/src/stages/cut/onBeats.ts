import type { MulticamClip, Track } from '@/api/types'
import { anglesOf } from '@/motion/angles'
import { endOf, startOf } from '@/stores/project'

/** Switches closer than this, in ticks, are too quick to be seen. */
const CLOSEST = 705_600_000 / 2

/** From a tick of the timeline on, an angle. */
export interface Cut {
  at: number
  angle: number
}

/** Moments of the timeline at which bars begin in the music that is marked; beats where there are no bars. */
export function beatsOf(tracks: readonly Track[]): number[] {
  const marked = tracks.flatMap((track) =>
    track.clips.flatMap((clip) =>
      (clip.markers ?? [])
        .filter(({ beat, at }) => beat && at >= 0 && at < clip.length)
        .map(({ beat, at }) => ({ beat, at: startOf(clip) + at })),
    ),
  )
  const bars = marked.filter(({ beat }) => beat === 'bar')
  return [...new Set((bars.length > 1 ? bars : marked).map(({ at }) => at))].sort((a, b) => a - b)
}

/** A first cut: from angle to angle in their order, on moments far enough from each other. */
export function cutsOn(moments: readonly number[], clip: MulticamClip): Cut[] {
  const shown = anglesOf(clip).filter(({ seen }) => seen)
  let last = startOf(clip)
  let turn = 0
  return moments.flatMap((at) => {
    if (at - last < CLOSEST || at >= endOf(clip)) return []
    last = at
    turn += 1
    const angle = shown[turn % shown.length]?.index ?? 0
    return [{ at, angle }]
  })
}
