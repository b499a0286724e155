import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { client, need } from '@/api/client'
import type { ExportOut, ExportSettings } from '@/api/types'
import { isUnfinished } from '@/jobs/job'
import { useJobs, type Deed } from '@/stores/jobs'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { t } from '@/texts'

/** Films of the open project, being made or finished. */
export const useExports = defineStore('exports', () => {
  const project = useProject()
  const notes = useNotes()
  const jobs = useJobs()
  const films = ref<ExportOut[]>([])
  const loaded = ref(false)

  const working = computed(() => films.value.some((film) => isUnfinished(film.job)))
  jobs.onChange(['film'], refresh)
  watch(working, (on) => jobs.setBusy('films', on))

  async function refresh() {
    const { id } = project
    if (!id) return
    try {
      const found = await need(
        client.GET('/api/projects/{id}/exports', { params: { path: { id } } }),
      )
      if (id !== project.id) return
      tellEnds(found)
      films.value = found
      loaded.value = true
    } catch (error) {
      notes.problem(error)
    }
  }

  /** A film that has come to its end is told once, wherever one is. */
  function tellEnds(found: ExportOut[]) {
    for (const film of found) {
      const before = films.value.find((one) => one.id === film.id)
      if (!before || !isUnfinished(before.job) || isUnfinished(film.job)) continue
      if (film.job.state === 'done') notes.told(t('stores.exports.isMade', { title: film.title }))
      else if (film.job.state === 'failed')
        notes.told(t('stores.exports.couldNotBeMade', { title: film.title }))
    }
  }

  async function start(settings: ExportSettings[], asTake = false) {
    const { id } = project
    try {
      const body = { settings, as_take: asTake }
      await need(client.POST('/api/projects/{id}/exports', { params: { path: { id } }, body }))
      notes.told(t('stores.exports.beingMade', {}, settings.length))
    } catch (error) {
      notes.problem(error)
    }
    await refresh()
  }

  async function toLibrary(film: ExportOut) {
    try {
      await need(client.POST('/api/exports/{id}/take', { params: { path: { id: film.id } } }))
      notes.told(t('stores.exports.inTheLibrary', { title: film.title }))
    } catch (error) {
      notes.problem(error)
    }
  }

  async function act(film: ExportOut, deed: Deed) {
    await jobs.act(film.job.id, deed)
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
    films.value = []
    loaded.value = false
  }

  return { films, loaded, refresh, start, toLibrary, act, remove, forget }
})
