import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import type { Quad } from '@/motion/quads'
import { useHand } from './hand'

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
}

/** What is asked for of a tracker: the rest of it changes nothing of what is found. */
export const wantedOf = ({ change, views, first, last }: Tracked): Tracked => ({
  change,
  views,
  first,
  last,
})
export const nameOfWanted = (media: string, wanted: Tracked) =>
  JSON.stringify([media, wantedOf(wanted)])
/** The take of a clip, as addresses name it: with the dashes that clips leave out. */
export const takeOf = (media: string) => ({
  id: media.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5'),
})

/** What is followed through the video in hand: which tracker is worked on, what was found. */
export const useTracking = defineStore('tracking', () => {
  const hand = useHand()
  /** Id of the tracker in hand. */
  const taken = ref('')
  const draft = ref<Draft | null>(null)
  /** What was found, by what was asked for. */
  const found = ref<Record<string, Found>>({})
  const keep = (media: string, wanted: Tracked, what: Found) =>
    (found.value = { ...found.value, [nameOfWanted(media, wanted)]: what })
  watch(
    () => hand.one?.clip.id,
    () => {
      taken.value = ''
      draft.value = null
    },
  )
  return { taken, draft, found, keep }
})
