<script setup lang="ts">
/** Captions from words that are said: typed or pasted here, timed by the voice of the film. */
import { BModal } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import { client, need } from '@/api/client'
import { mayBeHeard, type Step } from '@/api/types'
import SpokenWords from '@/controls/SpokenWords.vue'
import TrackChecks from '@/controls/TrackChecks.vue'
import { useAsking } from '@/stores/useAsking'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { t } from '@/texts'

/** Captions that are there: what they say is what one begins with, and they are replaced. */
const props = defineProps<{ track: string | null; said: string }>()
const open = defineModel<boolean>({ required: true })
const notes = useNotes()
const project = useProject()
const { ask, busy } = useAsking()

const words = ref(props.said)
const language = ref('en')
const heard = ref<string[]>([])
const tracks = computed(() =>
  (project.document?.tracks ?? []).filter((one) => (one.clips ?? []).some(mayBeHeard)),
)

async function lay() {
  const params = { path: { id: project.id, revision: project.revision } }
  const body = { text: words.value.trim(), language: language.value, tracks: heard.value }
  const found = await ask(() =>
    need(client.POST('/api/projects/{id}/revisions/{revision}/captioned', { params, body })),
  )
  if (!found) return
  if (!found.cues.length) {
    notes.told(t('send.wordsDialog.none'))
    return
  }
  const step = { kind: 'lay_captions', cues: found.cues, track: props.track }
  if (await project.edit(step as unknown as Step)) open.value = false
}
</script>

<template>
  <BModal
    v-model="open"
    :title="$t('send.wordsDialog.title')"
    :ok-title="$t('send.wordsDialog.lay')"
    :cancel-title="$t('words.cancel')"
    cancel-variant="secondary"
    :ok-disabled="busy || !words.trim()"
    :busy="busy"
    scrollable
    lazy
    @ok.prevent="lay"
  >
    <div class="fields">
      <p class="tiny quiet mb-0">{{ $t('send.wordsDialog.help') }}</p>
      <SpokenWords v-model:words="words" v-model:language="language" test="captions" />
      <TrackChecks
        v-if="tracks.length > 1"
        v-model="heard"
        :label="$t('send.wordsDialog.whose')"
        :tracks="tracks"
        test="captions-of"
      />
    </div>
  </BModal>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 10px;
}
</style>
