<script setup lang="ts">
/** A button of the stage: in a row of the bench, on a phone beside the picture. */
import type { Component } from 'vue'

defineProps<{ name: string; icon: Component; help: string }>()
</script>

<template>
  <button type="button" class="btn btn-bare side-button" :title="help">
    <component :is="icon" class="icon" aria-hidden="true" /><span>{{ name }}</span>
  </button>
</template>

<style scoped>
.side-button {
  touch-action: manipulation;
  user-select: none;
  -webkit-user-select: none;
  -webkit-touch-callout: none;
}
.phone .side .side-button {
  flex: none;
  flex-direction: column;
  gap: 1px;
  min-width: 56px;
  min-height: 48px;
  padding: 2px;
  font-size: 12px;
  font-weight: 500;
  line-height: 1.15;
}
.phone .side .side-button[aria-pressed='true'] {
  background: #453c4e;
  color: var(--text);
}
.phone .beside .side .side-button {
  width: 60px;
}
</style>
