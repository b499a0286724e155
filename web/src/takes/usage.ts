import { faceMedia, isHolding, type Clip, type Track } from '@/api/types'

/** Each use of a file in the open timeline: the file, and the clip that shows or plays it. */
function* uses(tracks: Track[]): Generator<[string, Clip]> {
  for (const clip of tracks.flatMap((track) => track.clips ?? [])) {
    if (isHolding(clip)) yield* uses(clip.tracks)
    else if (clip.kind === 'sequence') for (const picture of clip.pictures) yield [picture, clip]
    else if (faceMedia(clip)) yield [faceMedia(clip), clip]
  }
}

/** How many clips of the open timeline use each file, those in groups included. */
export function usage(tracks: Track[]): Map<string, number> {
  const found = new Map<string, number>()
  for (const [media] of uses(tracks)) found.set(media, (found.get(media) ?? 0) + 1)
  return found
}

/** A file that is used, by the first clip of it: known even where its take is in another project. */
export interface Used {
  media: string
  name: string
  sounds: boolean
}

export function usedFiles(tracks: Track[]): Used[] {
  const found = new Map<string, Used>()
  for (const [media, clip] of uses(tracks)) {
    if (!found.has(media))
      found.set(media, { media, name: clip.name ?? '', sounds: clip.kind === 'sound' })
  }
  return [...found.values()]
}
