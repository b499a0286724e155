import type { Track } from '@/api/types'

/** A beat that was found in a clip, at a tick of the timeline. */
export interface Beat {
  at: number
  bar: boolean
}

/** All beats that are heard where their clips lie, in order; of two at one moment a bar's stays. */
export function beatsOf(tracks: readonly Track[]): Beat[] {
  const found = tracks.flatMap((track) =>
    (track.clips ?? []).flatMap((clip) =>
      (clip.markers ?? [])
        .filter(({ beat, at }) => beat && at >= 0 && at < clip.length)
        .map(({ beat, at }) => ({ at: (clip.start ?? 0) + at, bar: beat === 'bar' })),
    ),
  )
  found.sort((one, other) => one.at - other.at || Number(other.bar) - Number(one.bar))
  return found.filter(({ at }, index) => at !== found[index - 1]?.at)
}

/** Those with room between them: where beats lie closer than so many ticks, bars alone. */
export function roomy(beats: readonly Beat[], least: number): readonly Beat[] {
  const close = beats.some(({ at }, index) => index && at - (beats[index - 1]?.at ?? 0) < least)
  return close ? beats.filter(({ bar }) => bar) : beats
}
