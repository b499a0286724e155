import type { GroupClip, Track } from '@/api/types'

/** A group by its id, however deep it lies. */
export function findGroup(tracks: Track[], id: string): GroupClip | null {
  for (const track of tracks) {
    for (const clip of track.clips ?? []) {
      if (clip.kind !== 'group') continue
      if (clip.id === id) return clip
      const found = findGroup(clip.tracks, id)
      if (found) return found
    }
  }
  return null
}
