import { computed } from 'vue'
import { KIND_NAMES } from '@/api/kinds'
import { paceOf } from '@/motion/pace'
import { useHand } from '@/stores/hand'
import { t } from '@/texts'
import { lengthLabel } from '@/time'

/** What is in hand, in words. */
export function useInHandWords() {
  const hand = useHand()

  const title = computed(() => {
    if (!hand.found.length) return t('words.nothingInHand')
    const clip = hand.one?.clip
    return clip
      ? clip.name || KIND_NAMES[clip.kind]
      : t('controls.useInHandWords.clipsInHand', { count: hand.found.length })
  })
  const facts = computed(() => {
    if (!hand.found.length) return t('controls.useInHandWords.tapAClipToTake')
    if (!hand.one) return t('controls.useInHandWords.verbsActOnAllOf')
    const { clip, track } = hand.one
    return [KIND_NAMES[clip.kind], track.name, lengthLabel(clip.length), paceOf(clip)]
      .filter(Boolean)
      .join(' · ')
  })

  return { title, facts }
}
