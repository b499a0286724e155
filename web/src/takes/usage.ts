import { faceMedia, isHolding, type Track } from '@/api/types'

/** How many clips of the open timeline use each file, those in groups included. */
export function usage(tracks: Track[]): Map<string, number> {
  const found = new Map<string, number>()
  const count = (media: string) => found.set(media, (found.get(media) ?? 0) + 1)
  const walk = (rows: Track[]) => {
    for (const track of rows) {
      for (const clip of track.clips ?? []) {
        if (isHolding(clip)) walk(clip.tracks)
        else if (clip.kind === 'sequence') clip.pictures.forEach(count)
        else if (faceMedia(clip)) count(faceMedia(clip))
      }
    }
  }
  walk(tracks)
  return found
}
