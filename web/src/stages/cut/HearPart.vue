<script setup lang="ts">
/** What is heard with each angle: one main sound, each its own, or a map. */
import { BButton } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import { client, need } from '@/api/client'
import type { MulticamClip, Track } from '@/api/types'
import { anglesOf } from '@/motion/angles'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import { gainsLike } from './levels'

const props = defineProps<{ clip: MulticamClip }>()
const project = useProject()
const notes = useNotes()

const OWN = 'own'
const MAP = 'map'
const angles = computed(() => anglesOf(props.clip))
const hears = computed(() => props.clip.hears)
const taken = computed(() => {
  const [first] = hears.value
  if (hears.value.every((one) => one === first)) return String(first)
  return hears.value.every((one, index) => one === index) ? OWN : MAP
})
const told = computed(() => {
  if (taken.value === OWN) return t('cut.hearPart.each')
  return angles.value[Number(taken.value)]?.name ?? t('cut.hearPart.map')
})

function choose(to: string) {
  if (to === MAP) return
  const all = angles.value.map(({ index }) => (to === OWN ? index : Number(to)))
  hear(all)
}

const hear = (all: number[]) =>
  project.edit({ kind: 'hear_angles', clip: props.clip.id ?? '', hears: all })

const levelling = ref(false)
/** As loud as the main sound, or else as the first angle. */
async function level() {
  const like = taken.value === OWN || taken.value === MAP ? 0 : Number(taken.value)
  levelling.value = true
  try {
    const all = await Promise.all(props.clip.tracks.map((track) => loudnessOf(track)))
    const gains = gainsLike(like, all)
    await project.edit({ kind: 'level_angles', clip: props.clip.id ?? '', gains })
  } catch (error) {
    notes.problem(error)
  } finally {
    levelling.value = false
  }
}

async function loudnessOf(track: Track): Promise<number> {
  const path = { id: project.id, revision: project.revision, clip: track.clips?.[0]?.id ?? '' }
  const query = { within: props.clip.id ?? '' }
  const asked = client.GET('/api/projects/{id}/revisions/{revision}/clips/{clip}/loudness', {
    params: { path, query },
  })
  return (await need(asked)).whole
}

const set = (index: number, to: number) =>
  hear(hears.value.map((one, place) => (place === index ? to : one)))
</script>

<template>
  <TrayItem :name="$t('cut.hearPart.sound')" :told="told">
    <label class="line">
      <span>{{ $t('cut.hearPart.sound') }}</span>
      <select
        class="form-select"
        data-test="main-sound"
        :value="taken"
        @change="choose(($event.target as HTMLSelectElement).value)"
      >
        <option :value="OWN">{{ $t('cut.hearPart.eachHelp') }}</option>
        <option v-if="taken === MAP" :value="MAP">{{ $t('cut.hearPart.map') }}</option>
        <option v-for="one in angles" :key="one.index" :value="String(one.index)">
          {{ $t('cut.hearPart.always', { name: one.name }) }}
        </option>
      </select>
    </label>
    <div>
      <BButton
        variant="secondary"
        size="sm"
        :disabled="levelling"
        :title="$t('cut.hearPart.levelHelp')"
        data-test="level-angles"
        @click="level"
      >
        {{ levelling ? $t('cut.lineUp.listening') : $t('cut.hearPart.level') }}
      </BButton>
    </div>
    <details>
      <summary class="small quiet">{{ $t('cut.hearPart.forEach') }}</summary>
      <label v-for="one in angles.filter(({ seen }) => seen)" :key="one.index" class="line">
        <span class="clip-text">{{ $t('cut.hearPart.with', { name: one.name }) }}</span>
        <select
          class="form-select"
          :value="hears[one.index]"
          @change="set(one.index, Number(($event.target as HTMLSelectElement).value))"
        >
          <option v-for="other in angles" :key="other.index" :value="other.index">
            {{ other.name }}
          </option>
        </select>
      </label>
    </details>
  </TrayItem>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: 84px minmax(0, 1fr);
  align-items: center;
  gap: 10px;
  color: var(--soft);
  min-height: 40px;
}
</style>
