import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { client, need } from '@/api/client'
import type { ExportOut, ExportSettings } from '@/api/types'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'

const UNFINISHED = ['waiting', 'working', 'joining']

/** Films of the open project, being made or finished; asks again while one is being made. */
export const useExports = defineStore('exports', () => {
  const project = useProject()
  const notes = useNotes()
  const films = ref<ExportOut[]>([])
  const loaded = ref(false)
  let timer = 0

  const working = computed(() => films.value.some(isUnfinished))

  async function refresh() {
    window.clearTimeout(timer)
    if (!project.id) return
    try {
      films.value = await need(
        client.GET('/api/projects/{id}/exports', { params: { path: { id: project.id } } }),
      )
      loaded.value = true
    } catch (error) {
      notes.problem(error)
    }
    if (working.value) timer = window.setTimeout(refresh, 900)
  }

  async function start(settings: ExportSettings) {
    try {
      await need(
        client.POST('/api/projects/{id}/exports', {
          params: { path: { id: project.id } },
          body: { settings },
        }),
      )
      notes.told('The film is being made. It goes on when you close the page.')
    } catch (error) {
      notes.problem(error)
    }
    await refresh()
  }

  async function cancel(id: string) {
    try {
      await need(client.POST('/api/exports/{id}/cancel', { params: { path: { id } } }))
    } catch (error) {
      notes.problem(error)
    }
    await refresh()
  }

  async function remove(id: string) {
    try {
      await need(client.DELETE('/api/exports/{id}', { params: { path: { id } } }))
    } catch (error) {
      notes.problem(error)
    }
    await refresh()
  }

  function forget() {
    window.clearTimeout(timer)
    films.value = []
    loaded.value = false
  }

  return { films, loaded, refresh, start, cancel, remove, forget }
})

export function isUnfinished(film: ExportOut): boolean {
  return UNFINISHED.includes(film.state)
}
