import { useDebounceFn } from '@vueuse/core'
import { onBeforeUnmount, watch } from 'vue'
import { isUnfinished, type Job } from '@/jobs/job'
import { useJobs } from '@/stores/jobs'

/** Milliseconds without a change before the server is asked. */
const SETTLED = 700

/**
 * What a job on the server finds out, kept up to date as long as a component is there: asked for
 * when what it is `about` has changed, and again as the job goes on. `ask` answers the jobs it is of.
 */
export function useJobAnswer(kind: string, about: () => unknown, ask: () => Promise<Job[]>) {
  const jobs = useJobs()
  let open = true
  let waiting = false

  async function look() {
    if (!open) return
    const found = await ask()
    waiting = open && found.some(isUnfinished)
    jobs.setBusy(kind, waiting)
  }

  watch(() => JSON.stringify(about()), useDebounceFn(look, SETTLED), { immediate: true })
  jobs.onChange([kind], () => waiting && look())
  onBeforeUnmount(() => {
    open = false
    jobs.setBusy(kind, false)
  })
}
