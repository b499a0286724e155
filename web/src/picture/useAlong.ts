import { computed, watch } from 'vue'
import { client, need } from '@/api/client'
import type { Mask, VideoClip } from '@/api/types'
import { alongOf, type Along } from '@/motion/along'
import { innerTick } from '@/motion/inside'
import { momentAt } from '@/motion/tracks'
import { useScreen } from '@/player/inject'
import { useHand } from '@/stores/hand'
import { useProject } from '@/stores/project'
import { nameOfWanted, takeOf, useTracking, wantedOf } from '@/stores/tracking'
import { tickOf } from '@/time'

/** How masks of the video in hand go along with its trackers, at the playhead. */
export function useAlong() {
  const hand = useHand()
  const project = useProject()
  const store = useTracking()
  const { player } = useScreen()

  const clip = computed<VideoClip | null>(() => {
    const found = hand.one?.clip
    return found?.kind === 'video' ? found : null
  })
  const trackers = computed(() => clip.value?.trackers ?? [])
  /** The tick of the file that shows at the playhead. */
  const tick = computed(() =>
    clip.value
      ? Math.max(0, Math.round(innerTick(clip.value, tickOf(player.shown.value, project.rate))))
      : 0,
  )
  const foundOf = (id: string | null | undefined) => {
    const one = trackers.value.find((tracker) => tracker.id === id)
    const found = one && clip.value && store.found[nameOfWanted(clip.value.media, one)]
    return one && found ? { one, found } : null
  }

  /** From where a mask is kept to where it is seen; none if it stays, or that is not known yet. */
  function alongOfMask(mask: Mask | null): Along | null {
    const known = foundOf(mask?.tracker)
    if (!mask || !known) return null
    const was = momentAt(known.found, mask.since ?? 0).quad
    return alongOf(known.one.change, was, momentAt(known.found, tick.value).quad)
  }

  // What is not known of a tracker that is used is fetched, if it was found before.
  watch(
    () => [clip.value?.media, trackers.value.length, clip.value?.masks?.length],
    async () => {
      const media = clip.value?.media
      for (const one of media ? trackers.value : []) {
        if (!media || store.found[nameOfWanted(media, one)]) continue
        const asked = client.POST('/api/takes/{id}/tracks', {
          params: { path: takeOf(media) },
          body: wantedOf(one),
        })
        const told = await need(asked).catch(() => null)
        if (told?.found) store.keep(media, one, told.found)
      }
    },
    { immediate: true },
  )
  return { clip, trackers, tick, alongOfMask }
}
