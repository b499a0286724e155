<script setup lang="ts">
/** What can be done with a row, as small buttons that say it when they are looked at. */
import { BButton } from 'bootstrap-vue-next'
import type { Component } from 'vue'

defineProps<{
  deeds: { test: string; name: string; icon: Component; act: () => unknown }[]
}>()
</script>

<template>
  <BButton
    v-for="one in deeds"
    :key="one.test"
    variant="secondary"
    :aria-label="one.name"
    :title="one.name"
    :data-test="one.test"
    @click="one.act"
  >
    <component :is="one.icon" aria-hidden="true" />
  </BButton>
</template>
