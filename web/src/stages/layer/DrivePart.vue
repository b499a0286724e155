<script setup lang="ts">
/** A value led by the sound of the film, by a wave, or by what is followed: asked for once, it has keys. */
import { BModal } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import { client, need, type Schemas } from '@/api/client'
import { mayBeHeard } from '@/api/types'
import ControlFields from '@/controls/ControlFields.vue'
import { rowOf } from '@/controls/rows'
import TrackChecks from '@/controls/TrackChecks.vue'
import type { Layer } from '@/inhand/useLayer'
import { useAsking } from '@/stores/useAsking'
import { useKit, type Control } from '@/stores/kit'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'

const props = defineProps<{
  layer: Layer
  controls: readonly Control[]
  /** Whether its points are of what is drawn, before that is sized. */
  drawn?: boolean
  /** Of what, where there may be several. */
  of?: string
}>()
const emit = defineEmits<{ set: [Record<string, unknown>] }>()
const kit = useKit()
const notes = useNotes()
const project = useProject()
const { here, ask, busy } = useAsking()

const open = ref(false)
const name = ref('')
const driving = ref<Record<string, unknown>>({})
const chosen = computed(
  () => props.controls.find((one) => one.name === name.value) ?? props.controls[0],
)
/** How it is shown: shares in percent. */
const row = computed(() => (chosen.value ? rowOf(chosen.value, chosen.value.default)[0] : null))
/** The least and the most, as they are shown. */
const ends = ref<[number, number]>([0, 1])

const WAVE = ['rate', 'fading', 'seed']
const FOLLOWED = ['attack', 'release']
/** What is asked for besides; where nothing stands here, how quickly the sound is followed. */
const SETTINGS: Record<string, string[]> = {
  wave: WAVE,
  beats: ['release'],
  followed: ['measure'],
}
/** What is followed in videos. */
const followed = computed(() =>
  project.tracks.flatMap((track) =>
    (track.clips ?? []).flatMap((clip) =>
      clip.kind === 'video'
        ? (clip.trackers ?? []).map((one) => ({
            id: one.id ?? '',
            name: t('layer.drivePart.followedIn', {
              tracker: one.name || '…',
              name: clip.name ?? '',
            }),
          }))
        : [],
    ),
  ),
)
/** A point goes along with the whole place of what is followed. */
const isPoint = computed(() => chosen.value?.control === 'spot')
const PLACE = 'place'
const asked = computed(() => {
  if (isPoint.value) return []
  const by = driving.value.by ?? 'level'
  const shown = SETTINGS[by as string] ?? FOLLOWED
  return (kit.layer?.driving ?? [])
    .filter((one) => one.name === 'by' || shown.includes(one.name))
    .map((one) => ({ ...one, choices: one.choices?.filter((id) => id !== PLACE) }))
})
const values = computed<Record<string, unknown>>(() => ({
  ...Object.fromEntries((kit.layer?.driving ?? []).map((one) => [one.name, one.default])),
  ...driving.value,
  ...(isPoint.value ? { by: 'followed', measure: PLACE } : {}),
}))
const tracks = computed(() => project.tracks.filter((one) => (one.clips ?? []).some(mayBeHeard)))
const heard = ref<string[]>([])

const nameOf = (one: Control) =>
  one.control === 'spot' ? t('layer.drivePart.point') : (rowOf(one, one.default)[0]?.label ?? '')

function choose(control: string) {
  name.value = control
  if (isPoint.value) {
    ends.value = [0, 1]
    driving.value = { ...driving.value, tracker: driving.value.tracker || followed.value[0]?.id }
    return
  }
  const { low, default: most } = chosen.value ?? {}
  const factor = row.value?.factor ?? 1
  ends.value = [(low ?? 0) * factor, Number(most ?? 1) * factor]
}

function begin() {
  choose(chosen.value?.name ?? '')
  open.value = true
}

async function make() {
  const control = chosen.value
  if (!control) return
  const [low, high] = ends.value.map((end) => end / (row.value?.factor ?? 1))
  const wanted = {
    ...values.value,
    low,
    high,
    tracks: heard.value,
    drawn: props.drawn,
  } as Schemas['Driving']
  const clip = props.layer.ids.value[0] ?? ''
  const made = await ask(() =>
    need(
      client.POST('/api/projects/{id}/revisions/{revision}/driven', {
        params: here(),
        body: { clip, driving: wanted },
      }),
    ),
  )
  if (!made) return
  const { keys } = made
  emit('set', { [control.name]: { keys } })
  notes.told(t('layer.drivePart.made', { n: keys.length }))
  open.value = false
}
</script>

<template>
  <TrayItem :name="of ? $t('layer.drivePart.ledOf', { name: of }) : $t('layer.drivePart.led')" last>
    <button
      class="btn btn-secondary btn-sm"
      :disabled="layer.ids.value.length !== 1"
      data-test="drive"
      @click="begin"
    >
      {{ $t('layer.drivePart.lead') }}
    </button>
    <p class="tiny quiet mb-0">{{ $t('layer.drivePart.help') }}</p>
    <BModal
      v-model="open"
      :title="$t('layer.drivePart.title')"
      :ok-title="$t('layer.drivePart.make')"
      :cancel-title="$t('words.cancel')"
      cancel-variant="secondary"
      :ok-disabled="busy || (isPoint && !values.tracker)"
      :busy="busy"
      scrollable
      lazy
      @ok.prevent="make"
    >
      <div class="fields">
        <label class="row-of">
          <span>{{ $t('layer.drivePart.value') }}</span>
          <select
            class="form-select"
            data-first
            data-test="drive-value"
            :value="chosen?.name"
            @change="choose(($event.target as HTMLSelectElement).value)"
          >
            <option v-for="one in controls" :key="one.name" :value="one.name">
              {{ nameOf(one) }}
            </option>
          </select>
        </label>
        <label v-for="(_, end) in isPoint ? [] : ends" :key="end" class="row-of">
          <span>{{ end ? $t('layer.drivePart.most') : $t('layer.drivePart.least') }}</span>
          <input
            v-model.number="ends[end]"
            type="number"
            class="form-control"
            step="any"
            :data-test="end ? 'drive-most' : 'drive-least'"
          />
          <span class="tiny quiet">{{ row?.unit }}</span>
        </label>
        <ControlFields
          :controls="asked"
          :values="values"
          :local="0"
          @set="driving = { ...driving, ...$event }"
        />
        <label v-if="values.by === 'followed'" class="row-of">
          <span>{{ $t('layer.drivePart.followed') }}</span>
          <select
            class="form-select"
            data-test="drive-tracker"
            :value="values.tracker"
            @change="driving = { ...driving, tracker: ($event.target as HTMLSelectElement).value }"
          >
            <option value="">{{ $t('words.none') }}</option>
            <option v-for="one in followed" :key="one.id" :value="one.id">{{ one.name }}</option>
          </select>
        </label>
        <p v-if="values.by === 'followed' && !followed.length" class="tiny quiet mb-0">
          {{ $t('layer.drivePart.nothing') }}
        </p>
        <TrackChecks
          v-if="!['wave', 'followed'].includes(String(values.by)) && tracks.length > 1"
          v-model="heard"
          :label="$t('layer.drivePart.whose')"
          :tracks="tracks"
        />
      </div>
    </BModal>
  </TrayItem>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 10px;
}
.row-of {
  display: grid;
  grid-template-columns: 90px 1fr auto;
  align-items: center;
  gap: 8px;
}
</style>
