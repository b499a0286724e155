<script setup lang="ts">
/** Some of the tracks that are heard, or none, which means all. */
import type { Track } from '@/api/types'

const props = defineProps<{ label: string; tracks: readonly Track[]; test?: string }>()
const chosen = defineModel<string[]>({ required: true })
const turn = (track: string, on: boolean) =>
  (chosen.value = on ? [...chosen.value, track] : chosen.value.filter((one) => one !== track))
const testOf = (track: Track) => (props.test ? `${props.test}-${track.name}` : undefined)
</script>

<template>
  <fieldset>
    <legend class="tiny">{{ label }}</legend>
    <label v-for="track in tracks" :key="track.id" class="form-check">
      <input
        type="checkbox"
        class="form-check-input"
        :data-test="testOf(track)"
        :checked="chosen.includes(track.id ?? '')"
        @change="turn(track.id ?? '', ($event.target as HTMLInputElement).checked)"
      />
      {{ track.name }}
    </label>
  </fieldset>
</template>

<style scoped>
label {
  min-height: var(--touch);
}
</style>
