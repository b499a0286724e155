import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import type { VideoClip } from '@/api/types'
import { innerTick, outerTick } from '@/motion/inside'
import type { Quad } from '@/motion/quads'
import { momentAt } from '@/motion/tracks'
import { useScreen } from '@/player/inject'
import { useProject } from '@/stores/project'
import { nameOfWanted, useTracking, type Found } from '@/stores/tracking'
import { frameOf, tickOf } from '@/time'

export type Tracker = Schemas['Tracker']

/** The trackers of the video in hand, and where the one in hand is at the playhead. */
export function useTracked(clip: () => VideoClip) {
  const project = useProject()
  const store = useTracking()
  const { player } = useScreen()

  const trackers = computed(() => clip().trackers ?? [])
  const tracker = computed(
    () => trackers.value.find(({ id }) => id === store.taken) ?? trackers.value[0] ?? null,
  )
  const found = computed<Found | null>(() =>
    tracker.value ? (store.found[nameOfWanted(clip().media, tracker.value)] ?? null) : null,
  )
  /** The tick of the file that shows at the playhead. */
  const tick = computed(() => sourceAt(tickOf(player.shown.value, project.rate)))
  const now = computed(() => (found.value ? momentAt(found.value, tick.value) : null))

  function sourceAt(outer: number): number {
    const inner = Math.round(innerTick(clip(), outer))
    return Math.min(Math.max(inner, 0), clip().source_length)
  }
  const frameAt = (source: number) => frameOf(outerTick(clip(), source), project.rate)

  /** It is here: to be followed from here, or put right. */
  function lay(quad: Quad) {
    const [of, change] = store.draft
      ? [store.draft.of, store.draft.change]
      : [tracker.value?.id ?? '', tracker.value?.change]
    if (change) store.draft = { of, change, at: tick.value, quad }
  }

  return { trackers, tracker, found, tick, now, sourceAt, frameAt, lay }
}
