import { tryOnScopeDispose, useThrottleFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { reactive, watch } from 'vue'
import { client, need } from '@/api/client'
import { openStream } from '@/jobs/stream'
import { useNotes } from '@/stores/notes'

export type Deed = 'cancel' | 'again' | 'pause' | 'go-on' | 'first'

/** Milliseconds between two looks at the same list. */
const PACE = 250

/** Long work on the server: told of by one stream of events, which is open while there is some. */
export const useJobs = defineStore('jobs', () => {
  const notes = useNotes()
  const looks = new Map<string, Set<() => void>>()
  const busy = reactive(new Set<string>())

  /** Look again whenever a job of one of these kinds changes, as long as whoever looks is there. */
  function onChange(kinds: string[], look: () => unknown) {
    const paced = useThrottleFn(look, PACE, true)
    const again = () => void paced()
    for (const kind of kinds) looks.set(kind, (looks.get(kind) ?? new Set()).add(again))
    tryOnScopeDispose(() => kinds.forEach((kind) => looks.get(kind)?.delete(again)))
  }

  /** Say whether there is unfinished work in a list; the stream is open while there is any. */
  function setBusy(list: string, on: boolean) {
    if (on) busy.add(list)
    else busy.delete(list)
  }

  const lookAt = (kind: string) => looks.get(kind)?.forEach((look) => look())
  const lookEverywhere = () => [...looks.keys()].forEach(lookAt)

  let close = () => {}
  watch(
    () => busy.size > 0,
    (on) => {
      close()
      close = on ? openStream(({ kind }) => lookAt(kind), lookEverywhere) : () => {}
    },
  )

  async function act(id: string, deed: Deed) {
    try {
      await need(client.POST('/api/jobs/{id}/{deed}', { params: { path: { id, deed } } }))
    } catch (error) {
      notes.problem(error)
    }
  }

  return { onChange, setBusy, act }
})
