<script setup lang="ts" generic="T extends string | number">
/** A few choices in a row, one of them taken. */
defineProps<{
  label: string
  choices: readonly { id: T; name: string; help?: string; test?: string }[]
  taken: T
}>()
defineEmits<{ take: [id: T] }>()
</script>

<template>
  <div class="choices" role="group" :aria-label="label">
    <button
      v-for="one in choices"
      :key="one.id"
      type="button"
      :aria-pressed="taken === one.id"
      :title="one.help"
      :data-test="one.test"
      @click="$emit('take', one.id)"
    >
      {{ one.name }}
    </button>
  </div>
</template>

<style scoped>
.choices {
  display: inline-flex;
  flex-wrap: wrap;
  background: var(--rail);
  border-radius: var(--fold);
  padding: 3px;
  gap: 2px;
}
button {
  border: 0;
  background: none;
  color: var(--soft);
  border-radius: 8px 8px 2px 8px;
  padding: 4px 12px;
  font-weight: 600;
  font-size: 13px;
  min-height: calc(var(--touch) - 6px);
}
@media (pointer: coarse) {
  button {
    min-width: var(--touch);
    min-height: var(--touch);
  }
}
button[aria-pressed='true'] {
  background: #453c4e;
  color: var(--text);
}
</style>
