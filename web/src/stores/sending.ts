import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import type { ExportSettings } from '@/api/types'
import { useKit, type Preset } from '@/stores/kit'
import { useProject } from '@/stores/project'
import { t } from '@/texts'

type Destination = Schemas['Destination']

/** A place of one's own in the Kit: what is made for it, and which other one it is like. */
export interface OwnPlace extends Destination {
  like: string
  preset: Preset
}

export type SendPart = 'file' | 'captions' | 'check' | 'films' | 'feed' | 'hand-over'

/** What is to be made: for which destinations, and what was changed by hand of what each wants. */
export const useSending = defineStore('sending', () => {
  const kit = useKit()
  const project = useProject()
  const part = ref<SendPart>('file')
  const several = ref(false)
  /** Whether what is made goes into the library too. */
  const asTake = ref(false)
  const chosen = ref<string[]>(['own'])
  /** The destination whose settings are shown. */
  const at = ref('own')
  const changes = ref<Record<string, Partial<ExportSettings>>>({})
  /** Of the timeline, in ticks; `last` 0 is its end. */
  const range = ref({ first: 0, last: 0 })

  /** What the key for it does; there is something while captions are shown. */
  const beginCaption = ref<(() => void) | null>(null)

  const shipped = computed(() => kit.send?.destinations ?? [])
  const own = computed(() => kit.places.flatMap((preset) => ownPlace(preset, shipped.value)))
  const destinations = computed<Destination[]>(() => [...own.value, ...shipped.value])
  const ownOf = (id: string) => own.value.find((one) => one.id === id)
  const canvas = computed(() => project.document?.canvas ?? { width: 1080, height: 1920 })
  const formats = computed(() => kit.send?.formats ?? [])
  const destination = computed(() => destinations.value.find((one) => one.id === at.value))
  const formatOf = (settings: ExportSettings) =>
    formats.value.find((one) => one.id === settings.format)

  function settingsOf(id: string): ExportSettings | null {
    const destination = destinations.value.find((one) => one.id === id)
    return destination ? { ...destination.settings, ...changes.value[id], ...range.value } : null
  }
  const settings = computed(() => settingsOf(at.value))
  const wanted = computed(() =>
    chosen.value.map(settingsOf).filter((one): one is ExportSettings => one !== null),
  )

  /** One destination instead of the last, or with several at once: one more, or one less. */
  function take(id: string) {
    const now = chosen.value
    if (!several.value) chosen.value = [id]
    else if (!now.includes(id)) chosen.value = [...now, id]
    else if (now.length > 1) chosen.value = now.filter((one) => one !== id)
    at.value = chosen.value.includes(id) ? id : (chosen.value.at(-1) ?? 'own')
  }

  function severalAtOnce(on: boolean) {
    several.value = on
    if (!on) chosen.value = [at.value]
  }

  const adjust = (change: Partial<ExportSettings>) =>
    (changes.value = {
      ...changes.value,
      [at.value]: { ...changes.value[at.value], ...change },
    })
  const isChanged = (id: string) => Object.keys(changes.value[id] ?? {}).length > 0
  const asItWants = () => (changes.value = { ...changes.value, [at.value]: {} })

  /** What the place in hand is made for becomes one of one's own, and is taken. */
  async function keepAsOwn(name: string) {
    if (!destination.value) return
    const content = { like: ownOf(at.value)?.like ?? at.value, settings: settings.value }
    const { id } = await kit.keepPreset(name, content, 'place')
    asItWants()
    take(`own-${id}`)
  }

  async function removeOwn({ id, like, preset }: OwnPlace) {
    await kit.removePreset(preset)
    chosen.value = chosen.value.filter((one) => one !== id)
    if (!chosen.value.length) chosen.value = [like]
    if (at.value === id) at.value = chosen.value[0] ?? 'own'
  }

  function forget() {
    range.value = { first: 0, last: 0 }
  }

  return {
    part,
    several,
    asTake,
    chosen,
    at,
    range,
    beginCaption,
    destinations,
    canvas,
    formats,
    destination,
    settings,
    wanted,
    settingsOf,
    formatOf,
    take,
    severalAtOnce,
    adjust,
    isChanged,
    asItWants,
    ownOf,
    keepAsOwn,
    removeOwn,
    forget,
  }
})

function ownPlace(preset: Preset, shipped: readonly Destination[]): OwnPlace[] {
  const { like, settings } = preset.content as { like: string; settings: ExportSettings }
  const base = shipped.find(({ id }) => id === like)
  if (!base) return []
  const help = t('send.filePart.like', { title: base.title })
  return [{ ...base, id: `own-${preset.id}`, title: preset.name, help, settings, like, preset }]
}
