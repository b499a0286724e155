import { defineStore } from 'pinia'
import { ref } from 'vue'
import { client, csrfToken, errorOf, need, type Schemas } from '@/api/client'

export type Look = Schemas['LookOut']
export type Preset = Schemas['PresetOut']
export type Control = Schemas['Control']
export type GradeControls = Schemas['GradeControls']
export type CdlValues = Schemas['Cdl']

/** What was saved for use in any project, and what benches need to know of parameters. */
export const useKit = defineStore('kit', () => {
  const looks = ref<Look[]>([])
  const presets = ref<Preset[]>([])
  const grade = ref<GradeControls | null>(null)

  async function open() {
    const [controls] = await Promise.all([
      grade.value ?? need(client.GET('/api/kit/grade')),
      refresh(),
    ])
    grade.value = controls
  }

  async function refresh() {
    const kind = 'grade' as const
    const [found, kept] = await Promise.all([
      need(client.GET('/api/kit/looks')),
      need(client.GET('/api/kit/presets', { params: { query: { kind } } })),
    ])
    looks.value = found
    presets.value = kept
  }

  async function upload<T>(path: string, file: File): Promise<T> {
    const body = new FormData()
    body.set('file', file)
    const headers = { 'X-CSRFToken': csrfToken() }
    const response = await fetch(path, { method: 'POST', body, headers })
    if (!response.ok) throw await errorOf(response)
    return (await response.json()) as T
  }

  async function bringInLook(file: File): Promise<Look> {
    const look = await upload<Look>('/api/kit/looks', file)
    await refresh()
    return look
  }

  const readCdl = (file: File) => upload<CdlValues>('/api/kit/cdl', file)

  async function removeLook(look: Look) {
    await need(client.DELETE('/api/kit/looks/{id}', { params: { path: { id: look.name } } }))
    await refresh()
  }

  async function keepPreset(name: string, content: Record<string, unknown>) {
    await need(client.POST('/api/kit/presets', { body: { kind: 'grade', name, content } }))
    await refresh()
  }

  async function renamePreset(preset: Preset, name: string) {
    const params = { path: { id: preset.id } }
    await need(client.PATCH('/api/kit/presets/{id}', { params, body: { name } }))
    await refresh()
  }

  async function removePreset(preset: Preset) {
    await need(client.DELETE('/api/kit/presets/{id}', { params: { path: { id: preset.id } } }))
    await refresh()
  }

  return {
    looks,
    presets,
    grade,
    open,
    refresh,
    bringInLook,
    readCdl,
    removeLook,
    keepPreset,
    renamePreset,
    removePreset,
  }
})
