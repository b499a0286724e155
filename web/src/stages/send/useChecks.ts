import { useDebounceFn } from '@vueuse/core'
import { computed, onBeforeUnmount, shallowRef, watch } from 'vue'
import { client, need, type Schemas } from '@/api/client'
import { isUnfinished } from '@/jobs/job'
import { useJobs } from '@/stores/jobs'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { useSending } from '@/stores/sending'

export type CheckLine = Schemas['Line']
export type Finding = Schemas['Finding']

/** Milliseconds without a change before the film is looked at anew. */
const SETTLED = 600

/** What is to be seen to before the film goes to the destination in hand. */
export function useChecks() {
  const project = useProject()
  const sending = useSending()
  const jobs = useJobs()
  const notes = useNotes()
  const found = shallowRef<Schemas['CheckOut'] | null>(null)
  /** What stood there before, while it is looked at anew. */
  const lines = shallowRef<CheckLine[] | null>(null)
  let open = true

  async function ask() {
    const { settings, at } = sending
    if (!open || !project.length || !settings) return
    const params = { path: { id: project.id } }
    const body = { destination: at, settings }
    try {
      const answer = await need(client.POST('/api/projects/{id}/checks', { params, body }))
      if (!open || at !== sending.at) return
      found.value = answer
      if (answer.lines) lines.value = answer.lines
    } catch (error) {
      notes.problem(error)
    }
    jobs.setBusy('checks', found.value !== null && isUnfinished(found.value.job))
  }

  const settle = useDebounceFn(ask, SETTLED)
  watch(() => [project.revision, sending.at, JSON.stringify(sending.settings)], settle, {
    immediate: true,
  })
  jobs.onChange(['check'], () => {
    if (found.value && isUnfinished(found.value.job)) void ask()
  })
  onBeforeUnmount(() => {
    open = false
    jobs.setBusy('checks', false)
  })

  /** The share that is looked at; null if all is. */
  const share = computed(() => {
    const job = found.value?.job
    return job && isUnfinished(job) ? job.share : null
  })
  const problem = computed(() => found.value?.job.problem ?? null)
  const count = computed(() =>
    (lines.value ?? []).reduce((sum, one) => sum + one.findings.length, 0),
  )
  return { lines, share, problem, count }
}
