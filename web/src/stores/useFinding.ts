import { ref, shallowRef } from 'vue'
import type { Schemas } from '@/api/client'
import { isUnfinished } from '@/jobs/job'
import { useJobs } from './jobs'
import { useNotes } from './notes'

/** What the server tells of something that is to be found in a take: it, or the job that finds it. */
interface Told<F> {
  job?: Schemas['JobOut'] | null
  found?: F | null
}

interface Ways<W, F> {
  /** Only what changes what is found. */
  bare: (wanted: W) => W
  begin: (media: string, wanted: W) => Promise<Told<F>>
  look: (job: string) => Promise<Told<F>>
}

/** Something that was asked for and is not found yet. */
interface Asked<F> {
  job: Schemas['JobOut'] | null
  answer: Promise<F | null>
  settle: (found: F | null) => void
}

/** Things that a job of the server finds in takes, asked for once each, by what is wanted. */
export function useFinding<W, F>(kind: string, ways: Ways<W, F>) {
  const jobs = useJobs()
  const notes = useNotes()
  const found = shallowRef<Record<string, F>>({})
  const asked = ref<Record<string, Asked<F>>>({})

  const nameOf = (media: string, wanted: W) => JSON.stringify([media, ways.bare(wanted)])
  const foundOf = (media: string, wanted: W) => found.value[nameOf(media, wanted)] ?? null
  const jobOf = (media: string, wanted: W) => asked.value[nameOf(media, wanted)]?.job ?? null

  /** What is found, now or when its job is done; null if it is refused or cancelled. */
  function ask(media: string, wanted: W): Promise<F | null> {
    const name = nameOf(media, wanted)
    const known = found.value[name]
    if (known) return Promise.resolve(known)
    const waiting = asked.value[name]
    if (waiting) return waiting.answer
    let settle: Asked<F>['settle'] = () => {}
    const answer = new Promise<F | null>((resolve) => (settle = resolve))
    put(name, { job: null, answer, settle })
    void hear(name, ways.begin(media, ways.bare(wanted)))
    return answer
  }

  async function hear(name: string, answer: Promise<Told<F>>) {
    const one = asked.value[name]
    try {
      const told = await answer
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

  function put(name: string, one: Asked<F>) {
    asked.value = { ...asked.value, [name]: one }
    jobs.setBusy(kind, true)
  }

  function end(name: string, what: F | null) {
    const { [name]: one, ...rest } = asked.value
    asked.value = rest
    jobs.setBusy(kind, Object.keys(rest).length > 0)
    one?.settle(what)
  }

  jobs.onChange(['track'], () => {
    for (const [name, { job }] of Object.entries(asked.value)) {
      if (job) void hear(name, ways.look(job.id))
    }
  })

  function cancel(media: string, wanted: W) {
    const name = nameOf(media, wanted)
    const job = asked.value[name]?.job
    if (job) jobs.act(job.id, 'cancel')
    end(name, null)
  }

  return { foundOf, jobOf, ask, cancel }
}
