import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import { client, need, type Schemas } from '@/api/client'
import { takeOf } from '@/api/types'
import type { Quad, Spot } from '@/motion/quads'
import { useHand } from './hand'
import { useFinding } from './useFinding'

export type Found = Schemas['TrackFound']
export type Tracked = Schemas['Tracked']
export type Change = Schemas['Tracker']['change']

/** A thing that is to be followed, or where a follow is being put right: at a tick of the file. */
export interface Draft {
  /** Id of the tracker that is put right; none for a new one. */
  of: string
  change: Change
  at: number
  quad: Quad
  /** Of a new one that is told by spots: where they are, in heights of the picture. */
  spots?: Spot[]
}

/** What is asked for of a tracker: the rest of it changes nothing of what is found. */
export function wantedOf(one: Tracked): Tracked {
  const { change, views, first, last, spots = [], face = false } = one
  return { change, views, first, last, spots, face }
}

/** What is followed through the video in hand: which tracker is worked on, what was found. */
export const useTracking = defineStore('tracking', () => {
  const hand = useHand()
  /** Id of the tracker in hand. */
  const taken = ref('')
  const draft = ref<Draft | null>(null)
  watch(
    () => hand.one?.clip.id,
    () => {
      taken.value = ''
      draft.value = null
    },
  )

  const finding = useFinding<Tracked, Found>('tracking', {
    bare: wantedOf,
    begin: (media, body) =>
      need(client.POST('/api/takes/{id}/tracks', { params: { path: takeOf(media) }, body })),
    look: (id) => need(client.GET('/api/tracks/{id}', { params: { path: { id } } })),
  })

  return { taken, draft, ...finding }
})
