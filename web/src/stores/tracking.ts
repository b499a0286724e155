import { defineStore } from 'pinia'
import { ref, shallowRef, watch } from 'vue'
import { client, need, type Schemas } from '@/api/client'
import { takeOf } from '@/api/types'
import { isUnfinished } from '@/jobs/job'
import type { Quad } from '@/motion/quads'
import { useHand } from './hand'
import { useJobs } from './jobs'
import { useNotes } from './notes'

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
const nameOfWanted = (media: string, wanted: Tracked) => JSON.stringify([media, wantedOf(wanted)])

/** Something that was asked for and is not found yet. */
interface Asked {
  media: string
  wanted: Tracked
  job: Schemas['JobOut'] | null
  answer: Promise<Found | null>
  settle: (found: Found | null) => void
}

/** What is followed through the video in hand: which tracker is worked on, what was found. */
export const useTracking = defineStore('tracking', () => {
  const hand = useHand()
  const jobs = useJobs()
  const notes = useNotes()
  /** Id of the tracker in hand. */
  const taken = ref('')
  const draft = ref<Draft | null>(null)
  /** What was found, and what is looked for, by what was asked for. */
  const found = ref<Record<string, Found>>({})
  const asked = shallowRef<Record<string, Asked>>({})
  watch(
    () => hand.one?.clip.id,
    () => {
      taken.value = ''
      draft.value = null
    },
  )

  const foundOf = (media: string, wanted: Tracked) =>
    found.value[nameOfWanted(media, wanted)] ?? null
  const jobOf = (media: string, wanted: Tracked) =>
    asked.value[nameOfWanted(media, wanted)]?.job ?? null

  /** What is found, now or when its job is done; null if it is refused or cancelled. */
  function ask(media: string, wanted: Tracked): Promise<Found | null> {
    const name = nameOfWanted(media, wanted)
    const known = found.value[name]
    if (known) return Promise.resolve(known)
    const waiting = asked.value[name]
    if (waiting) return waiting.answer
    let settle: Asked['settle'] = () => {}
    const answer = new Promise<Found | null>((resolve) => (settle = resolve))
    put(name, { media, wanted, job: null, answer, settle })
    const body = wantedOf(wanted)
    void hear(
      name,
      client.POST('/api/takes/{id}/tracks', { params: { path: takeOf(media) }, body }),
    )
    return answer
  }

  async function hear(name: string, answer: Parameters<typeof need<Schemas['TrackOut']>>[0]) {
    const one = asked.value[name]
    try {
      const told = await need<Schemas['TrackOut']>(answer)
      if (!one || asked.value[name]?.settle !== one.settle) return
      if (told.found) found.value = { ...found.value, [name]: told.found }
      else if (told.job && isUnfinished(told.job)) return put(name, { ...one, job: told.job })
      else if (told.job?.state === 'failed') notes.told(told.job.problem?.message ?? '')
      end(name, told.found ?? null)
    } catch (error) {
      notes.problem(error)
      end(name, null)
    }
  }

  function put(name: string, one: Asked) {
    asked.value = { ...asked.value, [name]: one }
    jobs.setBusy('tracking', true)
  }

  function end(name: string, what: Found | null) {
    const { [name]: one, ...rest } = asked.value
    asked.value = rest
    jobs.setBusy('tracking', Object.keys(rest).length > 0)
    one?.settle(what)
  }

  jobs.onChange(['track'], () => {
    for (const [name, { job }] of Object.entries(asked.value)) {
      if (!job) continue
      const path = { id: job.id }
      void hear(name, client.GET('/api/tracks/{id}', { params: { path } }))
    }
  })

  function cancel(media: string, wanted: Tracked) {
    const name = nameOfWanted(media, wanted)
    const job = asked.value[name]?.job
    if (job) jobs.act(job.id, 'cancel')
    end(name, null)
  }

  return { taken, draft, foundOf, jobOf, ask, cancel }
})
