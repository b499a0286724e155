import { defineStore } from 'pinia'
import { ref } from 'vue'
import { client, need, type Schemas } from '@/api/client'
import { takeOf } from '@/api/types'
import { isUnfinished } from '@/jobs/job'
import { useJobs } from './jobs'
import { useNotes } from './notes'

export type Person = Schemas['SeenFace']

/** What is told of faces: the job that looks for them, then whose they are. */
interface Answer {
  job?: Schemas['JobOut'] | null
  found?: { persons?: unknown[] } | null
}

/** Faces that are found by themselves, by take. */
export const useFaces = defineStore('faces', () => {
  const jobs = useJobs()
  const notes = useNotes()
  const found = ref<Record<string, Person[]>>({})
  /** Takes in which they are looked for; the job, once it is known. */
  const sought = ref<Record<string, Schemas['JobOut'] | null>>({})

  function look(media: string) {
    put(media, null)
    const path = takeOf(media)
    return hear(media, need(client.POST('/api/takes/{id}/faces', { params: { path } })))
  }

  async function hear(media: string, answer: Promise<Answer>) {
    try {
      const told = await answer
      if (!(media in sought.value)) return
      if (told.found) found.value = { ...found.value, [media]: told.found.persons as Person[] }
      else if (told.job && isUnfinished(told.job)) return put(media, told.job)
      else if (told.job?.state === 'failed') notes.told(told.job.problem?.message ?? '')
    } catch (error) {
      notes.problem(error)
    }
    end(media)
  }

  function put(media: string, job: Schemas['JobOut'] | null) {
    sought.value = { ...sought.value, [media]: job }
    jobs.setBusy('faces', true)
  }

  function end(media: string) {
    const others = Object.entries(sought.value).filter(([name]) => name !== media)
    sought.value = Object.fromEntries(others)
    jobs.setBusy('faces', others.length > 0)
  }

  function stop(media: string) {
    const job = sought.value[media]
    if (job) jobs.act(job.id, 'cancel')
    end(media)
  }

  jobs.onChange(['track'], () => {
    for (const [media, job] of Object.entries(sought.value)) {
      if (!job) continue
      const path = { id: job.id }
      void hear(media, need(client.GET('/api/faces/{id}', { params: { path } })))
    }
  })

  return { found, sought, look, stop }
})
