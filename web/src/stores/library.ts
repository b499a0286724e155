import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { client, need, needBytes, type Schemas } from '@/api/client'
import type { Take } from '@/api/types'
import { useJobs } from '@/stores/jobs'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { t } from '@/texts'

/** The takes of the open project. */
export const useLibrary = defineStore('library', () => {
  const project = useProject()
  const notes = useNotes()
  const jobs = useJobs()
  const takes = ref<Take[]>([])
  const loaded = ref(false)
  const chosen = ref('')
  const severalIds = ref<string[]>([])
  const shelves = ref<Schemas['ShelfOut'][]>([])

  const byMedia = computed(() => new Map(takes.value.map((take) => [take.media, take])))
  const take = computed(() => takes.value.find((one) => one.id === chosen.value) ?? null)
  const several = computed(() =>
    severalIds.value.flatMap((id) => takes.value.find((one) => one.id === id) ?? []),
  )
  const working = computed(() =>
    takes.value.some((one) => one.state !== 'arriving' && !one.complete),
  )
  jobs.onChange(['take_in', 'analysis', 'unpack'], refresh)
  watch(working, (on) => jobs.setBusy('library', on))

  async function refreshShelves() {
    const path = { id: project.id }
    const found = await need(client.GET('/api/projects/{id}/shelves', { params: { path } }))
    if (path.id === project.id) shelves.value = found
  }

  async function makeShelf(name: string) {
    try {
      const path = { id: project.id }
      await need(client.POST('/api/projects/{id}/shelves', { params: { path }, body: { name } }))
      await refreshShelves()
    } catch (error) {
      notes.problem(error)
    }
  }

  async function removeShelf(shelf: number) {
    try {
      const path = { id: project.id, shelf }
      await need(client.DELETE('/api/projects/{id}/shelves/{shelf}', { params: { path } }))
      await Promise.all([refreshShelves(), refresh()])
    } catch (error) {
      notes.problem(error)
    }
  }

  async function refresh() {
    const { id } = project
    if (!id) return
    if (!loaded.value) refreshShelves().catch((error: unknown) => notes.problem(error))
    try {
      const found = await need(client.GET('/api/projects/{id}/takes', { params: { path: { id } } }))
      if (id !== project.id) return
      const still = new Set(found.map((take) => take.id))
      const unpacked = takes.value.filter((take) => take.archive && !still.has(take.id))
      takes.value = found
      loaded.value = true
      if (!unpacked.length) return
      await project.reload()
      for (const { job } of unpacked) if (job) await tellRemarks(job.id)
    } catch (error) {
      notes.problem(error)
    }
  }

  /** What of an archive could not be taken, or is missing. */
  async function tellRemarks(id: string) {
    const job = await need(client.GET('/api/jobs/{id}', { params: { path: { id } } }))
    if (job.remarks.length) notes.told(job.remarks.join(' '))
  }

  function forget() {
    takes.value = []
    shelves.value = []
    loaded.value = false
    chosen.value = ''
    severalIds.value = []
  }

  function swap(changed: Take) {
    takes.value = takes.value.map((one) => (one.id === changed.id ? changed : one))
  }

  async function change(id: string, body: Schemas['TakeChange']) {
    try {
      swap(await need(client.PATCH('/api/takes/{id}', { params: { path: { id } }, body })))
    } catch (error) {
      notes.problem(error)
    }
  }

  /** Say whether each frame of a video is two fields; it is taken in anew. */
  async function setFields(id: string, twoFields: boolean) {
    const body = { two_fields: twoFields }
    try {
      swap(await need(client.PUT('/api/takes/{id}/fields', { params: { path: { id } }, body })))
    } catch (error) {
      notes.problem(error)
    }
  }

  /** Keep the marked part of a take, so that another can be marked. */
  function keepPart(take: Take) {
    const length = take.facts?.length ?? 0
    const part = {
      name: t('stores.library.part', { count: take.ranges.length + 1 }),
      mark_in: take.mark_in ?? 0,
      mark_out: take.mark_out ?? length,
    }
    return change(take.id, { ranges: [...take.ranges, part], mark_in: null, mark_out: null })
  }

  async function remove(id: string) {
    try {
      await need(client.DELETE('/api/takes/{id}', { params: { path: { id } } }))
      takes.value = takes.value.filter((one) => one.id !== id)
    } catch (error) {
      notes.problem(error)
    }
  }

  async function again(id: string) {
    try {
      swap(await need(client.POST('/api/takes/{id}/again', { params: { path: { id } } })))
      await refresh()
    } catch (error) {
      notes.problem(error)
    }
  }

  /** The picture at a frame of the open timeline as a still of its own. */
  async function keepFrame(frame: number) {
    const query = new URLSearchParams(project.look)
    const { base } = project.source
    try {
      await needBytes(`${base}/frames/${frame}/keep?${query}`, { method: 'POST' })
      notes.told(t('stores.library.thePictureIsInThe'))
      await refresh()
    } catch (error) {
      notes.problem(error)
    }
  }

  /** Stop taking a take in; it can be tried again. */
  async function cancel(take: Take) {
    if (take.job) await jobs.act(take.job.id, 'cancel')
    await refresh()
  }

  return {
    several,
    severalIds,
    shelves,
    makeShelf,
    removeShelf,
    keepPart,
    keepFrame,
    takes,
    loaded,
    chosen,
    take,
    byMedia,
    refresh,
    forget,
    change,
    setFields,
    remove,
    again,
    cancel,
  }
})

export function fileUrl(take: Take, name: 'poster.jpg' | 'strip.jpg' | 'waveform.i8'): string {
  return `/api/takes/${take.id}/files/${name}`
}
