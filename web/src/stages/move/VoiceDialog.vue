<script setup lang="ts">
/** Has a mouth led by the voice of the film: by its sound alone, or by the words that are said. */
import { BModal } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import { client, need, type Schemas } from '@/api/client'
import { mayBeHeard, type MouthClip } from '@/api/types'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import SpokenWords from '@/controls/SpokenWords.vue'
import SwitchField from '@/controls/SwitchField.vue'
import TrackChecks from '@/controls/TrackChecks.vue'
import { useAsking } from '@/stores/useAsking'
import { useMouth } from '@/stores/mouth'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { t } from '@/texts'

const props = defineProps<{ clip: MouthClip }>()
const open = defineModel<boolean>({ required: true })
const mouth = useMouth()
const notes = useNotes()
const project = useProject()
const { ask, busy } = useAsking()

const BY = [
  { id: 'sound', name: t('move.voiceDialog.sound'), test: 'voice-by-sound' },
  { id: 'words', name: t('move.voiceDialog.words'), test: 'voice-by-words' },
] as const
const by = ref<'sound' | 'words'>('sound')
const anew = ref(false)
const id = computed(() => props.clip.id ?? '')
const words = computed({
  get: () => mouth.words[id.value] ?? '',
  set: (text) => (mouth.words = { ...mouth.words, [id.value]: text }),
})
const heard = computed({
  get: () => mouth.voices[id.value] ?? [],
  set: (tracks) => (mouth.voices = { ...mouth.voices, [id.value]: tracks }),
})
/** Of the film, wherever the mouth lies. */
const tracks = computed(() =>
  (project.document?.tracks ?? []).filter((one) => (one.clips ?? []).some(mayBeHeard)),
)

const byHand = computed(() => (props.clip.turns ?? []).some((turn) => turn.by_hand))
const ready = computed(() => by.value === 'sound' || Boolean(words.value.trim()))

const voiced = (voice: Partial<Schemas['Voice']>) =>
  ask(() =>
    need(
      client.POST('/api/projects/{id}/revisions/{revision}/mouthed', {
        params: { path: { id: project.id, revision: project.revision } },
        body: {
          clip: id.value,
          voice: { by: 'sound', text: '', language: mouth.language, tracks: heard.value, ...voice },
        },
      }),
    ),
  )

async function lead() {
  const found = await voiced({ by: by.value, text: by.value === 'words' ? words.value : '' })
  if (!found) return
  const { turns, until } = found
  let same = false
  const step = { kind: 'propose_poses' as const, clip: id.value, turns, until, anew: anew.value }
  const done = await project.edit(step, ({ code }) => (same = code === 'nothing_changes'))
  if (!done && !same) return
  if (same && byHand.value && !anew.value) return notes.told(t('move.voiceDialog.allByHand'))
  const sure = turns.reduce((sum, one) => sum + (one.sure ?? 0), 0) / Math.max(1, turns.length)
  notes.told(t('move.voiceDialog.made', { n: turns.length, sure: Math.round(sure * 100) }))
  open.value = false
}

async function rest() {
  const found = await voiced({ by: 'pauses' })
  if (!found) return
  if (!found.pauses.length) notes.told(t('move.voiceDialog.noPauses'))
  else
    await project.edit({
      kind: 'rest_in',
      clip: id.value,
      spans: found.pauses as [number, number][],
    })
}
defineExpose({ rest })
</script>

<template>
  <BModal
    v-model="open"
    :title="$t('move.voiceDialog.title')"
    :ok-title="$t('move.voiceDialog.lead')"
    :cancel-title="$t('words.cancel')"
    cancel-variant="secondary"
    :ok-disabled="busy || !ready"
    :busy="busy"
    scrollable
    lazy
    @ok.prevent="lead"
  >
    <div class="fields">
      <ChoiceGroup
        :label="$t('move.voiceDialog.by')"
        :choices="BY"
        :taken="by"
        @take="by = $event"
      />
      <p class="tiny quiet mb-0">
        {{ by === 'sound' ? $t('move.voiceDialog.soundHelp') : $t('move.voiceDialog.wordsHelp') }}
      </p>
      <SpokenWords
        v-if="by === 'words'"
        v-model:words="words"
        v-model:language="mouth.language"
        test="voice"
      />
      <TrackChecks
        v-if="tracks.length > 1"
        v-model="heard"
        :label="$t('move.voiceDialog.whose')"
        :tracks="tracks"
        test="voice-of"
      />
      <SwitchField v-if="byHand" :on="anew" data-test="voice-anew" @update:on="anew = $event">
        {{ $t('move.voiceDialog.anew') }}
      </SwitchField>
    </div>
  </BModal>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 10px;
}
</style>
