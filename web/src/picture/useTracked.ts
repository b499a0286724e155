import { computed, watch } from 'vue'
import type { Schemas } from '@/api/client'
import type { VideoClip } from '@/api/types'
import { innerTick } from '@/motion/inside'
import { momentAt, type Moment } from '@/motion/tracks'
import { useScreen } from '@/player/inject'
import { useProject } from '@/stores/project'
import { useTracking } from '@/stores/tracking'
import { tickOf } from '@/time'

export type Tracker = Schemas['Tracker']

/** The trackers of a video, and where what they follow is at ticks of its file. */
export function useTracked(clip: () => VideoClip | null) {
  const project = useProject()
  const store = useTracking()
  const { player } = useScreen()

  const trackers = computed(() => clip()?.trackers ?? [])
  /** The tick of the file that shows at the playhead. */
  const tick = computed(() => sourceAt(tickOf(player.shown.value, project.rate)))

  function sourceAt(outer: number): number {
    const video = clip()
    if (!video) return 0
    return Math.min(Math.max(Math.round(innerTick(video, outer)), 0), video.source_length)
  }

  function foundOf(one: Tracker | null) {
    const media = clip()?.media
    return one && media ? store.foundOf(media, one) : null
  }

  /** Where it is at a tick of the file; none if that is not known yet. */
  function momentOf(one: Tracker | null, at: number): Moment | null {
    const found = foundOf(one)
    return found && momentAt(found, at)
  }

  // What was found for trackers that are there is fetched; what is missing is looked for.
  watch(
    () => [clip()?.media, trackers.value] as const,
    ([media, all]) => {
      if (media) for (const one of all) void store.ask(media, one)
    },
    { immediate: true },
  )
  return { trackers, tick, sourceAt, foundOf, momentOf }
}
