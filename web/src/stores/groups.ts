import { isHolding, type HoldingClip, type Track } from '@/api/types'

/** A group or multicam clip by its id, however deep it lies. */
export function findGroup(tracks: Track[], id: string): HoldingClip | null {
  for (const track of tracks) {
    for (const clip of track.clips ?? []) {
      if (!isHolding(clip)) continue
      if (clip.id === id) return clip
      const found = findGroup(clip.tracks, id)
      if (found) return found
    }
  }
  return null
}
