import type { Track } from '@/api/types'

/** Whether anything that is seen is followed by a tracker. */
export const anyFollowed = (tracks: readonly Track[]) =>
  tracks.some(
    (track) =>
      track.kind !== 'sound' &&
      !track.hidden &&
      (track.clips ?? []).some((one) => one.kind === 'video' && one.trackers?.length),
  )
