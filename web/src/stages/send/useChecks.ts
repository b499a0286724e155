import { computed, shallowRef } from 'vue'
import { client, need, type Schemas } from '@/api/client'
import { isUnfinished } from '@/jobs/job'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { useSending } from '@/stores/sending'
import { useJobAnswer } from '@/stores/useJobAnswer'

export type CheckLine = Schemas['Line']
export type Finding = Schemas['Finding']

/** What is to be seen to before the film goes to the destination in hand; also once it was weighed. */
export function useChecks(bytes: () => number | null) {
  const project = useProject()
  const sending = useSending()
  const notes = useNotes()
  const found = shallowRef<Schemas['CheckOut'] | null>(null)
  /** What stood there before, while it is looked at anew. */
  const lines = shallowRef<CheckLine[] | null>(null)

  async function ask() {
    const { settings, at } = sending
    if (!project.length || !settings) return []
    const params = { path: { id: project.id } }
    const body = { destination: sending.ownOf(at)?.like ?? at, settings }
    try {
      const answer = await need(client.POST('/api/projects/{id}/checks', { params, body }))
      // Meanwhile another destination may have been taken, which is asked for by itself.
      if (at !== sending.at) return []
      found.value = answer
      if (answer.lines) lines.value = answer.lines
      return [answer.job]
    } catch (error) {
      notes.problem(error)
      return []
    }
  }
  useJobAnswer('check', () => [project.revision, sending.at, sending.settings, bytes()], ask)

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
