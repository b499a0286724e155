import { isPaced, type Clip, type FrameRate, type Track } from '@/api/types'
import { frameTicks } from '@/time'

/** Frames by which a sound is late for the video it came from; 0 where it fits or has none. */
export function lateBy(clip: Clip, tracks: Track[], rate: FrameRate): number {
  if (clip.kind !== 'sound' || !clip.rides) return 0
  for (const track of tracks) {
    for (const video of track.clips ?? []) {
      if (video.id !== clip.rides || video.kind !== 'video' || video.media !== clip.media) continue
      if (!isPlain(video) || !isPlain(clip)) return 0
      const mine = (clip.start ?? 0) - (clip.source_in ?? 0)
      const its = (video.start ?? 0) - (video.source_in ?? 0)
      return Math.round((mine - its) / frameTicks(rate))
    }
  }
  return 0
}

function isPlain(clip: Clip): boolean {
  return isPaced(clip) && (clip.speed?.points ?? []).every((point) => point.speed === 1)
}
