<script setup lang="ts">
/** Another step of the history beside what is now, on the picture. */
import { computed } from 'vue'
import IconClose from '~icons/tabler/x'
import { useScreen } from '@/player/inject'
import { useTrialStill } from '@/player/useTrialStill'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { useViewing } from '@/stores/viewing'
import WipeOver from './WipeOver.vue'

const project = useProject()
const viewing = useViewing()
const notes = useNotes()
const { player } = useScreen()

const source = computed(() =>
  viewing.compared
    ? {
        base: `/api/projects/${project.id}/revisions/${viewing.compared.revision}`,
        query: project.look,
        frames: project.frames,
        rate: project.rate,
      }
    : null,
)
const other = useTrialStill(
  () => source.value,
  () => player.shown.value,
  () => null,
  (error) => {
    viewing.compared = null
    notes.problem(error)
  },
  960,
)
</script>

<template>
  <template v-if="viewing.compared">
    <WipeOver
      v-model="viewing.split"
      :src="other"
      :left="$t('picture.compareOver.step', { number: viewing.compared.number })"
      :right="$t('picture.compareOver.now')"
      data-test="compare"
    />
    <button
      class="btn close"
      :aria-label="$t('picture.compareOver.compareNoLonger')"
      data-test="compare-off"
      @click="viewing.compared = null"
    >
      <IconClose aria-hidden="true" />
    </button>
  </template>
</template>

<style scoped>
.close {
  position: absolute;
  right: 4px;
  bottom: 4px;
  background: rgb(22 22 22 / 70%);
}
</style>
