<script setup lang="ts">
/** A first cut of a multicam clip from what was found in its sound, to be changed by hand. */
import { BButton } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import { client, need } from '@/api/client'
import type { MulticamClip } from '@/api/types'
import { useNotes } from '@/stores/notes'
import { endOf, useProject } from '@/stores/project'
import TrayItem from '@/tray/TrayItem.vue'
import { beatsOf, cutsOn, type Cut } from './onBeats'

const props = defineProps<{ clip: MulticamClip }>()
const project = useProject()
const notes = useNotes()

const onBeats = computed(() => cutsOn(beatsOf(project.tracks), props.clip))
const listening = ref(false)

const cut = (cuts: Cut[]) =>
  project.edit({ kind: 'switch', clip: props.clip.id ?? '', cuts, until: endOf(props.clip) })

async function toWhoSpeaks() {
  listening.value = true
  try {
    const path = { id: project.id, revision: project.revision, clip: props.clip.id ?? '' }
    await cut(
      await need(
        client.GET('/api/projects/{id}/revisions/{revision}/clips/{clip}/turns', {
          params: { path },
        }),
      ),
    )
  } catch (error) {
    notes.problem(error)
  } finally {
    listening.value = false
  }
}
</script>

<template>
  <TrayItem :name="$t('cut.firstCut.firstCut')">
    <div class="line">
      <BButton
        variant="secondary"
        size="sm"
        data-test="switch-to-speakers"
        :disabled="listening"
        :title="$t('cut.firstCut.speakersHelp')"
        @click="toWhoSpeaks"
      >
        {{ listening ? $t('mix.loudness.listening') : $t('cut.firstCut.speakers') }}
      </BButton>
      <BButton
        variant="secondary"
        size="sm"
        data-test="switch-on-beats"
        :disabled="!onBeats.length"
        :title="$t('cut.firstCut.beatsHelp')"
        @click="cut(onBeats)"
      >
        {{ $t('cut.firstCut.beats') }}
      </BButton>
      <span v-if="!onBeats.length" class="tiny quiet">{{ $t('cut.firstCut.noBeats') }}</span>
    </div>
  </TrayItem>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
</style>
