import type { Clip, Track } from '@/api/types'

/** Pixels between two beats that can be told apart. */
export const BEAT_ROOM = 5

/** A beat, or a beginning, that was found in a clip. */
export interface Beat {
  at: number
  bar: boolean
}

/** Those of a clip, at its own ticks. */
export const beatsIn = (clip: Clip): Beat[] =>
  (clip.markers ?? [])
    .filter(({ beat, at }) => beat && at >= 0 && at < clip.length)
    .map(({ beat, at }) => ({ at, bar: beat === 'bar' }))

/** All beats that are heard where their clips lie, in order; of two at one moment a bar's stays. */
export function beatsOf(tracks: readonly Track[]): Beat[] {
  const found = tracks.flatMap((track) =>
    (track.clips ?? []).flatMap((clip) =>
      beatsIn(clip).map((beat) => ({ ...beat, at: (clip.start ?? 0) + beat.at })),
    ),
  )
  found.sort((one, other) => one.at - other.at || Number(other.bar) - Number(one.bar))
  return found.filter(({ at }, index) => at !== found[index - 1]?.at)
}

/** Those with room between them: bars where beats lie closer than so many ticks, else the first ones. */
export function roomy(beats: readonly Beat[], least: number): readonly Beat[] {
  const isClose = (at: number, before?: Beat) => before !== undefined && at - before.at < least
  if (!beats.some(({ at }, index) => isClose(at, beats[index - 1]))) return beats
  const bars = beats.filter(({ bar }) => bar)
  const kept: Beat[] = []
  for (const beat of bars.length ? bars : beats) if (!isClose(beat.at, kept.at(-1))) kept.push(beat)
  return kept
}
