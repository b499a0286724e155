import { defineStore } from 'pinia'
import { ref, shallowRef, watch } from 'vue'
import { client, need, type Schemas } from '@/api/client'
import { isUnfinished } from '@/jobs/job'
import type { Quad } from '@/motion/quads'
import { useHand } from './hand'
import { useJobs } from './jobs'
import { useNotes } from './notes'

export type Found = Schemas['TrackFound']
export type Tracked = Schemas['Tracked']
export type Person = Schemas['SeenFace']
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
/** The take of a clip, as addresses name it: with the dashes that clips leave out. */
const takeOf = (media: string) => ({
  id: media.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5'),
})

/** What is told of faces: the job that looks for them, then whose they are. */
interface FacesAnswer {
  job?: Schemas['JobOut'] | null
  found?: { persons?: unknown[] } | null
}

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

  /** Faces that were found by themselves, and takes in which they are looked for. */
  const faces = ref<Record<string, Person[]>>({})
  const looked = ref<Record<string, Schemas['JobOut'] | null>>({})

  const lookForFaces = (media: string) =>
    hearOfFaces(
      media,
      need(client.POST('/api/takes/{id}/faces', { params: { path: takeOf(media) } })),
    )

  async function hearOfFaces(media: string, answer: Promise<FacesAnswer>) {
    looked.value = { ...looked.value, [media]: looked.value[media] ?? null }
    jobs.setBusy('faces', true)
    try {
      const told = await answer
      if (!(media in looked.value)) return
      if (told.found) faces.value = { ...faces.value, [media]: told.found.persons as Person[] }
      else if (told.job && isUnfinished(told.job)) {
        looked.value = { ...looked.value, [media]: told.job }
        return
      } else if (told.job?.state === 'failed') notes.told(told.job.problem?.message ?? '')
    } catch (error) {
      notes.problem(error)
    }
    looksNoLonger(media)
  }

  function looksNoLonger(media: string) {
    looked.value = Object.fromEntries(
      Object.entries(looked.value).filter(([name]) => name !== media),
    )
    jobs.setBusy('faces', Object.keys(looked.value).length > 0)
  }

  function stopLooking(media: string) {
    const job = looked.value[media]
    if (job) jobs.cancel(job.id)
    looksNoLonger(media)
  }

  jobs.onChange(['track'], () => {
    for (const [media, job] of Object.entries(looked.value)) {
      if (!job) continue
      const path = { id: job.id }
      void hearOfFaces(media, need(client.GET('/api/faces/{id}', { params: { path } })))
    }
    for (const [name, { job }] of Object.entries(asked.value)) {
      if (!job) continue
      const path = { id: job.id }
      void hear(name, client.GET('/api/tracks/{id}', { params: { path } }))
    }
  })

  function cancel(media: string, wanted: Tracked) {
    const name = nameOfWanted(media, wanted)
    const job = asked.value[name]?.job
    if (job) jobs.cancel(job.id)
    end(name, null)
  }

  return {
    taken,
    draft,
    foundOf,
    jobOf,
    ask,
    cancel,
    faces,
    looked,
    lookForFaces,
    stopLooking,
  }
})
