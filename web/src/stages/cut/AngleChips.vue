<script setup lang="ts">
/** The angles of a multicam clip as a row of buttons: digit, colour and name. */
import AngleBadge from '@/controls/AngleBadge.vue'
import type { Angle } from '@/motion/angles'

defineProps<{ label: string; angles: readonly Angle[]; taken: number }>()
defineEmits<{ take: [index: number] }>()
</script>

<template>
  <div class="chips" role="group" :aria-label="label">
    <button
      v-for="angle in angles"
      :key="angle.index"
      type="button"
      class="btn btn-secondary"
      :aria-pressed="angle.index === taken"
      :data-test="`angle-${angle.index}`"
      @click="$emit('take', angle.index)"
    >
      <AngleBadge :index="angle.index" :tag="angle.tag" />
      <span class="clip-text">{{ angle.name }}</span>
    </button>
  </div>
</template>

<style scoped>
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}
.btn {
  display: flex;
  align-items: center;
  gap: 6px;
  max-width: 160px;
  padding: 2px 10px 2px 4px;
  touch-action: manipulation;
}
</style>
