import type { Track } from '@/api/types'
import { endOf, startOf } from '@/stores/project'

/** A clip of sound that may be heard in place of others. */
export interface SpokenTake {
  id: string
  media: string
  start: number
  end: number
  muted: boolean
}

/** The sounds of a name on tracks that can be changed, track by track. */
function spoken(tracks: readonly Track[], name: string): SpokenTake[][] {
  return tracks
    .filter((track) => !track.locked)
    .map((track) =>
      (track.clips ?? []).flatMap((clip) =>
        clip.kind === 'sound' && clip.name === name
          ? [
              {
                id: clip.id ?? '',
                media: clip.media,
                start: startOf(clip),
                end: endOf(clip),
                muted: clip.muted ?? false,
              },
            ]
          : [],
      ),
    )
}

/** Takes of the same words: sounds of one name that lie over each other at a tick. */
export function takesAt(tracks: readonly Track[], name: string, tick: number): SpokenTake[] {
  return spoken(tracks, name).flatMap((row) =>
    row.filter(({ start, end }) => start <= tick && tick < end),
  )
}

/** Whether any of them do. */
export function overlaid(tracks: readonly Track[], name: string): boolean {
  const [first = [], ...others] = spoken(tracks, name)
  const before = [...first]
  for (const row of others) {
    if (row.some((one) => before.some((other) => one.start < other.end && other.start < one.end)))
      return true
    before.push(...row)
  }
  return false
}
