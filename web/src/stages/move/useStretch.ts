import { computed, shallowRef, type Ref } from 'vue'
import type { Clip } from '@/api/types'
import { useKeys } from '@/inhand/useKeys'
import type { Keyed } from '@/motion/keys'
import { useScreen } from '@/player/inject'
import { useMoving } from '@/stores/moving'
import { stretched, withKeysAt, type Stays } from './graph'

/** The keys in hand drawn together or apart in time, with what the graph shows meanwhile. */
export function useStretch(
  props: { path: string },
  clip: Ref<Clip | null>,
  kept: Ref<Keyed | null>,
  draft: Ref<Keyed | null>,
) {
  const moving = useMoving()
  const keys = useKeys()
  const { player } = useScreen()

  /** From the first to the last key in hand, where all are this clip's and at more than one time. */
  const bracket = computed(() => {
    if (moving.keys.some((key) => key.clip !== clip.value?.id)) return null
    const ats = moving.keys.map(({ at }) => ends.value?.get(at) ?? at)
    const [low, high] = [Math.min(...ats), Math.max(...ats)]
    return low < high ? { low, high } : null
  })
  /** While they are stretched: where each of their times comes to. */
  const ends = shallowRef<Map<number, number> | null>(null)

  function stretchedTo(factor: number, stays: Stays): Map<number, number> {
    const ats = moving.keys.map(({ at }) => at)
    const still = stays === 'first' ? Math.min(...ats) : Math.max(...ats)
    return new Map(ats.map((at) => [at, stretched(at, still, factor, keys.frame.value)]))
  }

  function tryStretched(factor: number, stays: Stays) {
    ends.value = stretchedTo(factor, stays)
    const mine = [...ends.value].filter(([at]) =>
      moving.holds({ clip: clip.value?.id ?? '', path: props.path, at }),
    )
    if (kept.value && mine.length) draft.value = withKeysAt(kept.value, new Map(mine))
    player.tryOut(keys.stretchStep(factor, stays))
  }

  function stretch(factor: number, stays: Stays) {
    const there = stretchedTo(factor, stays)
    ends.value = null
    void keys.sendMoved(keys.stretchStep(factor, stays), (at) => there.get(at) ?? at)
  }

  const noStretch = () => (ends.value = null)

  return { bracket, tryStretched, stretch, noStretch }
}
