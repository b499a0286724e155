import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import type { Quad } from '@/motion/quads'
import { useHand } from './hand'

export type Found = Schemas['TrackFound']
export type Change = Schemas['Tracker']['change']

/** A thing that is to be followed, or where a follow is being put right: at a tick of the file. */
export interface Draft {
  /** Id of the tracker that is put right; none for a new one. */
  of: string
  change: Change
  at: number
  quad: Quad
}

/** What is followed through the video in hand: which tracker is worked on, what was found. */
export const useTracking = defineStore('tracking', () => {
  const hand = useHand()
  /** Id of the tracker in hand. */
  const taken = ref('')
  const draft = ref<Draft | null>(null)
  /** Whether the picture shows it. */
  const shown = ref(false)
  /** What was found, by what was asked for. */
  const found = ref<Record<string, Found>>({})
  watch(
    () => hand.one?.clip.id,
    () => {
      taken.value = ''
      draft.value = null
    },
  )
  return { taken, draft, shown, found }
})
