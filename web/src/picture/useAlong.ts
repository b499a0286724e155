import { computed } from 'vue'
import type { VideoClip } from '@/api/types'
import { alongOf, type Along } from '@/motion/along'
import { useHand } from '@/stores/hand'
import { useTracked } from './useTracked'

/** What goes along with a tracker, from a tick of the file on: a mask, a stroke. */
export interface Attached {
  tracker?: string | null
  since?: number
}

/** How masks and strokes of the video in hand go along with its trackers, at the playhead. */
export function useAlong() {
  const hand = useHand()
  const clip = computed<VideoClip | null>(() => {
    const found = hand.one?.clip
    return found?.kind === 'video' ? found : null
  })
  const { trackers, tick, through, momentOf } = useTracked(() => clip.value)

  /** From where it is kept to where it is seen; none if it stays, or that is not known yet. */
  function alongOfPart(part: Attached | null): Along | null {
    const one = trackers.value.find(({ id }) => id === part?.tracker)
    if (!part || !one) return null
    const [was, now] = [momentOf(one, part.since ?? 0), momentOf(one, tick.value)]
    return was && now && alongOf(one.change, was.quad, now.quad)
  }

  return { clip, trackers, tick, through, alongOfPart }
}
