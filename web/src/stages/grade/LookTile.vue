<script setup lang="ts">
/** The current frame as it would look after a step. */
import { useElementVisibility } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Step } from '@/api/types'
import { useScreen } from '@/player/inject'
import { useTrialStill } from '@/player/useTrialStill'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'

const props = defineProps<{ name: string; step: Step | null; taken?: boolean; test?: string }>()
defineEmits<{ take: [] }>()
const project = useProject()
const notes = useNotes()
const { player } = useScreen()
const tile = ref<HTMLElement | null>(null)
const visible = useElementVisibility(tile)

const source = computed(() =>
  visible.value && !player.playing.value && project.document
    ? { ...project.source, frames: project.frames }
    : null,
)
const url = useTrialStill(
  () => source.value,
  () => player.shown.value,
  () => props.step,
  (error) => notes.problem(error),
  200,
)
</script>

<template>
  <button
    ref="tile"
    type="button"
    class="tile"
    :aria-pressed="taken"
    :data-test="test"
    @click="$emit('take')"
  >
    <img v-if="url" :src="url" alt="" />
    <span v-else class="blank" />
    <span class="name clip-text">{{ name }}</span>
  </button>
</template>

<style scoped>
.tile {
  border: 2px solid transparent;
  background: var(--raised);
  color: var(--soft);
  border-radius: 10px 10px 3px 10px;
  padding: 0;
  overflow: hidden;
  display: grid;
  grid-template-rows: 1fr auto;
  min-width: 0;
}
.tile[aria-pressed='true'] {
  border-color: var(--accent);
  color: var(--text);
}
img,
.blank {
  width: 100%;
  height: 92px;
  object-fit: cover;
  display: block;
  background: #0c0a0e;
}
.name {
  font-size: 12px;
  font-weight: 600;
  padding: 4px 6px;
  min-height: 26px;
}
.phone :is(img, .blank) {
  height: 100%;
  min-height: 0;
}
.phone .tile {
  grid-template-rows: minmax(0, 1fr) auto;
}
.phone .name {
  padding: 2px 6px;
  min-height: 22px;
}
</style>
