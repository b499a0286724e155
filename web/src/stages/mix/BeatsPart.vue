<script setup lang="ts">
/** The beats of music: found, halved or doubled, shifted, and marked on the clip, where they snap. */
import { BButton } from 'bootstrap-vue-next'
import { computed, ref, shallowRef, watch } from 'vue'
import { client, need, type Schemas } from '@/api/client'
import ChoiceRow from '@/controls/ChoiceRow.vue'
import type { Properties } from '@/inhand/useProperties'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import { chosenBeats, type Pace } from './beats'
import { useAsking } from '@/stores/useAsking'

const props = defineProps<{ sound: Properties }>()
const project = useProject()
const { here, ask, busy } = useAsking()

const PACES: { id: Pace; name: string; help?: string }[] = [
  { id: 'half', name: t('mix.beatsPart.half') },
  { id: 'as_found', name: t('mix.beatsPart.asFound') },
  { id: 'double', name: t('mix.beatsPart.double') },
  { id: 'onsets', name: t('mix.beatsPart.onsets'), help: t('mix.beatsPart.onsetsHelp') },
]
const found = shallowRef<Schemas['BeatsOut'] | null>(null)
const pace = ref<Pace>('as_found')
const shift = ref(0)

watch(
  () => `${props.sound.clip.value?.id}/${props.sound.clip.value?.start}`,
  () => (found.value = null),
)
const beats = computed(() => found.value && chosenBeats(found.value, pace.value, shift.value))
const marked = computed(() => (props.sound.clip.value?.markers ?? []).some((one) => one.beat))

const told = computed(() => {
  if (!beats.value) return t('mix.beatsPart.whatItDoes')
  const n = beats.value.at.length
  if (pace.value === 'onsets') return t('mix.beatsPart.begun', { n }, n)
  return t('mix.beatsPart.tempo', { tempo: beats.value.tempo.toFixed(1), n })
})
const short = computed(() => {
  if (!beats.value) return ''
  return pace.value === 'onsets' ? `${beats.value.at.length}` : beats.value.tempo.toFixed(1)
})

async function look() {
  const clip = props.sound.clip.value?.id
  if (!clip) return
  const { path, query } = here()
  const asked = await ask(() =>
    need(
      client.GET('/api/projects/{id}/revisions/{revision}/clips/{clip}/beats', {
        params: { path: { ...path, clip }, query },
      }),
    ),
  )
  if (!asked) return
  found.value = asked
  // What has no beats may have beginnings.
  if (!asked.at.length) pace.value = 'onsets'
  else if (pace.value === 'onsets') pace.value = 'as_found'
  mark()
}

function mark() {
  const clip = props.sound.clip.value?.id
  if (!clip || !beats.value) return
  const { at, first } = beats.value
  const bar = pace.value === 'onsets' ? 0 : 4
  project.edit({ kind: 'mark_beats', clip, at, first, bar })
}

function away() {
  found.value = null
  project.edit({ kind: 'mark_beats', clip: props.sound.clip.value?.id ?? '', at: [] })
}

function choose(now: Pace) {
  pace.value = now
  mark()
}

function move(by: number) {
  shift.value += by
  mark()
}
</script>

<template>
  <fieldset :disabled="sound.locked.value">
    <TrayItem :name="$t('mix.beatsPart.beats')" :told="short">
      <div class="line">
        <BButton
          size="sm"
          :variant="found ? 'secondary' : 'primary'"
          :disabled="busy"
          data-test="find-beats"
          @click="look"
        >
          {{ busy ? $t('mix.loudness.listening') : $t('mix.beatsPart.find') }}
        </BButton>
        <BButton v-if="marked" size="sm" variant="secondary" data-test="beats-away" @click="away">
          {{ $t('mix.beatsPart.takeAway') }}
        </BButton>
        <span class="tiny quiet" role="status" data-test="tempo">
          {{ told }}
        </span>
      </div>
    </TrayItem>
    <template v-if="found">
      <ChoiceRow :name="$t('mix.beatsPart.pace')" :choices="PACES" :taken="pace" @take="choose" />
      <TrayItem v-if="pace !== 'onsets'" :name="$t('mix.beatsPart.bars')">
        <div class="line">
          <span class="name">{{ $t('mix.beatsPart.bars') }}</span>
          <BButton size="sm" variant="secondary" data-test="bar-earlier" @click="move(-1)">
            {{ $t('mix.beatsPart.earlier') }}
          </BButton>
          <BButton size="sm" variant="secondary" data-test="bar-later" @click="move(1)">
            {{ $t('mix.beatsPart.later') }}
          </BButton>
        </div>
      </TrayItem>
    </template>
  </fieldset>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
  padding: 4px 0;
}
.name {
  min-width: 84px;
  color: var(--soft);
}
</style>
