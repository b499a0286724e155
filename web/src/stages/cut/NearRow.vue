<script setup lang="ts">
/** What is nearest the playhead of several, which of them it is, and the ways to its neighbours. */
import IconBefore from '~icons/tabler/chevron-left'
import IconNext from '~icons/tabler/chevron-right'
import { useScreen } from '@/player/inject'

defineProps<{
  title: string
  told: string
  beforeName: string
  nextName: string
  before: { frame: number } | undefined
  next: { frame: number } | undefined
}>()
const { player } = useScreen()
</script>

<template>
  <div class="line">
    <h2>{{ title }}</h2>
    <span class="ways">
      <button
        type="button"
        class="btn btn-bare"
        :aria-label="beforeName"
        :title="beforeName"
        :disabled="!before"
        @click="before && player.seek(before.frame)"
      >
        <IconBefore aria-hidden="true" />
      </button>
      <span class="small quiet">{{ told }}</span>
      <button
        type="button"
        class="btn btn-bare"
        :aria-label="nextName"
        :title="nextName"
        :disabled="!next"
        @click="next && player.seek(next.frame)"
      >
        <IconNext aria-hidden="true" />
      </button>
    </span>
  </div>
</template>

<style scoped>
.line {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
.ways {
  display: flex;
  align-items: center;
  gap: 2px;
  white-space: nowrap;
}
</style>
