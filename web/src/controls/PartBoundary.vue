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
    <strong>{{ $t('controls.partBoundary.hasStopped', { name }) }}</strong>
    <span>{{ $t('controls.partBoundary.yourWorkIsKeptThe', { failed }) }}</span>
    <button class="btn btn-secondary" @click="failed = ''">{{ $t('words.tryAgain') }}</button>
  </section>
  <slot v-else />
</template>
