import { defineStore } from 'pinia'
import { ref } from 'vue'
import { inLanguage } from '@/texts'
import { DESCRIBED } from '@/texts/told'
import { client, need, upload, type Schemas } from '@/api/client'

export type Look = Schemas['LookOut']
export type Preset = Schemas['PresetOut']
export type Control = Schemas['Control']
export type GradeControls = Schemas['GradeControls']
export type CdlValues = Schemas['Cdl']
export type LayerControls = Schemas['LayerControls']
export type MoveControls = Schemas['MoveControls']
export type SoundControls = Schemas['SoundControls']
export type SendControls = Schemas['SendControls']
export type Font = Schemas['FontOut']
export type PresetKind = Schemas['PresetIn']['kind']

/** What was saved for use in any project, and what benches need to know of parameters. */
export const useKit = defineStore('kit', () => {
  const looks = ref<Look[]>([])
  const presets = ref<Preset[]>([])
  const effects = ref<Preset[]>([])
  const elements = ref<Preset[]>([])
  const fonts = ref<Font[]>([])
  const grade = ref<GradeControls | null>(null)
  const layer = ref<LayerControls | null>(null)
  const motions = ref<Preset[]>([])
  const move = ref<MoveControls | null>(null)
  const sound = ref<SoundControls | null>(null)
  const send = ref<SendControls | null>(null)
  const chains = ref<Preset[]>([])
  const places = ref<Preset[]>([])

  async function open() {
    const [controls, parts, moves, sounds, files] = await Promise.all([
      grade.value ?? need(client.GET('/api/kit/grade')),
      layer.value ?? need(client.GET('/api/kit/layer')),
      move.value ?? need(client.GET('/api/kit/move')),
      sound.value ?? need(client.GET('/api/kit/sounds')),
      send.value ?? need(client.GET('/api/kit/send')),
      refresh(),
    ])
    grade.value = inLanguage(controls, DESCRIBED)
    layer.value = inLanguage(parts, DESCRIBED)
    move.value = inLanguage(moves, DESCRIBED)
    sound.value = inLanguage(sounds, DESCRIBED)
    send.value = inLanguage(files, DESCRIBED)
  }

  const kept = (kind: PresetKind) =>
    need(client.GET('/api/kit/presets', { params: { query: { kind } } }))

  async function refresh() {
    const [found, faces, grades, rows, saved, moved, chained, own] = await Promise.all([
      need(client.GET('/api/kit/looks')),
      need(client.GET('/api/kit/fonts')),
      kept('grade'),
      kept('effects'),
      kept('element'),
      kept('motion'),
      kept('chain'),
      kept('place'),
    ])
    looks.value = found
    fonts.value = faces
    presets.value = grades
    effects.value = rows
    elements.value = saved
    motions.value = moved
    chains.value = chained
    places.value = own
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

  async function bringInFont(file: File): Promise<Font> {
    const font = await upload<Font>('/api/kit/fonts', file)
    await refresh()
    return font
  }

  async function removeFont(font: Font) {
    await need(client.DELETE('/api/kit/fonts/{id}', { params: { path: { id: font.name } } }))
    await refresh()
  }

  /** The shapes of an SVG file as a clip. */
  const readDrawing = (file: File) => upload<Schemas['DrawingOut']>('/api/kit/drawing', file)

  /** The cues of a file of captions. */
  const readCaptions = (file: File) => upload<Schemas['CaptionsRead']>('/api/captions', file)

  async function keepPreset(
    name: string,
    content: Record<string, unknown>,
    kind: PresetKind = 'grade',
  ) {
    const made = await need(client.POST('/api/kit/presets', { body: { kind, name, content } }))
    await refresh()
    return made
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
    effects,
    elements,
    fonts,
    grade,
    layer,
    motions,
    move,
    sound,
    send,
    chains,
    places,
    open,
    refresh,
    bringInLook,
    bringInFont,
    removeFont,
    readDrawing,
    readCaptions,
    readCdl,
    removeLook,
    keepPreset,
    renamePreset,
    removePreset,
  }
})
