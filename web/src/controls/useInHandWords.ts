import { computed } from 'vue'
import { KIND_NAMES } from '@/api/kinds'
import { useHand } from '@/stores/hand'
import { lengthLabel } from '@/time'

/** What is in hand, in words. */
export function useInHandWords() {
  const hand = useHand()

  const title = computed(() => {
    if (!hand.found.length) return 'Nothing in hand'
    const clip = hand.one?.clip
    return clip ? clip.name || KIND_NAMES[clip.kind] : `${hand.found.length} clips in hand`
  })
  const facts = computed(() => {
    if (!hand.found.length) return 'Tap a clip to take it'
    if (!hand.one) return 'Verbs act on all of them'
    const { clip, track } = hand.one
    return `${KIND_NAMES[clip.kind]} · ${track.name} · ${lengthLabel(clip.length)}`
  })

  return { title, facts }
}
