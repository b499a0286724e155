import { computed } from 'vue'
import type { Mask, VideoClip } from '@/api/types'
import { alongOf, type Along } from '@/motion/along'
import { useHand } from '@/stores/hand'
import { useTracked } from './useTracked'

/** How masks of the video in hand go along with its trackers, at the playhead. */
export function useAlong() {
  const hand = useHand()
  const clip = computed<VideoClip | null>(() => {
    const found = hand.one?.clip
    return found?.kind === 'video' ? found : null
  })
  const { trackers, tick, momentOf } = useTracked(() => clip.value)

  /** From where a mask is kept to where it is seen; none if it stays, or that is not known yet. */
  function alongOfMask(mask: Mask | null): Along | null {
    const one = trackers.value.find(({ id }) => id === mask?.tracker)
    if (!mask || !one) return null
    const [was, now] = [momentOf(one, mask.since ?? 0), momentOf(one, tick.value)]
    return was && now && alongOf(one.change, was.quad, now.quad)
  }

  return { clip, trackers, tick, alongOfMask }
}
