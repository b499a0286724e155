<script setup lang="ts">
/** A part of the page that fails says so, and the rest goes on. */
import { onErrorCaptured, ref } from 'vue'

defineProps<{
  /** What it is called in a sentence: “The timeline”. */
  name: string
}>()
const failed = ref('')

onErrorCaptured((error) => {
  failed.value = error instanceof Error ? error.message : String(error)
  console.error(error)
  return false
})
</script>

<template>
  <section v-if="failed" class="empty" role="alert" data-test="part-failed">
    <strong>{{ name }} has stopped</strong>
    <span>Your work is kept; the rest of the page goes on. ({{ failed }})</span>
    <button class="btn btn-secondary" @click="failed = ''">Try again</button>
  </section>
  <slot v-else />
</template>
