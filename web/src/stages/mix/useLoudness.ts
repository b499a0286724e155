import { createSharedComposable, useDebounceFn } from '@vueuse/core'
import { computed, onScopeDispose, shallowRef, watch } from 'vue'
import { client, need, type Schemas } from '@/api/client'
import type { Step } from '@/api/types'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'

export type Loudness = Schemas['Loudness']

/** Milliseconds after a step, before the film is measured anew. */
const REST_MS = 500

/** How loud the film is: measured when it changed, by stretches, of which only changed ones cost. */
export const useLoudness = createSharedComposable(() => {
  const project = useProject()
  const notes = useNotes()
  const found = shallowRef<Loudness | null>(null)
  /** The share that is measured, 0..1; 1 when nothing is on its way. */
  const done = shallowRef(1)
  let asked = 0

  /** Measure to the end, as long as it is wanted; null if it is not. */
  async function measured(
    edits: Step[],
    on: (part: Loudness, share: number) => void,
    wanted: () => boolean,
  ) {
    const path = { id: project.id, revision: project.revision }
    for (;;) {
      const answer = await need(
        client.POST('/api/projects/{id}/revisions/{revision}/loudness', {
          params: { path },
          body: { edits: edits.map((one) => project.whole({ ...one, within: null })) },
        }),
      )
      if (!wanted()) return null
      on(answer.loudness, answer.of ? answer.done / answer.of : 1)
      if (answer.done >= answer.of) return answer.loudness
    }
  }

  async function measure() {
    if (!project.document) return
    const mine = ++asked
    done.value = 0
    try {
      const show = (part: Loudness, share: number) => {
        found.value = part
        done.value = share
      }
      await measured([], show, () => mine === asked)
    } catch (error) {
      done.value = 1
      notes.problem(error)
    }
  }

  /** How loud it would be after steps that are not done. */
  const tried = (edits: Step[]): Promise<Loudness | null> => {
    const film = project.id
    return measured(
      edits,
      () => {},
      () => project.id === film,
    )
  }

  const rested = useDebounceFn(measure, REST_MS)
  watch(
    () => [project.id, project.seen] as const,
    ([id], before) => {
      if (id !== before?.[0]) found.value = null
      if (id) rested()
    },
    { immediate: true },
  )
  onScopeDispose(() => (asked += 1))

  return { found, done, measuring: computed(() => done.value < 1), tried }
})
