<script setup lang="ts">
/** More choices than fit beside each other, one of them taken. */
defineProps<{
  label: string
  choices: readonly { id: string; name: string }[]
  taken: string
}>()
defineEmits<{ take: [id: string] }>()
</script>

<template>
  <select
    class="form-select form-select-sm"
    :aria-label="label"
    :value="taken"
    @change="$emit('take', ($event.target as HTMLSelectElement).value)"
  >
    <option v-for="one in choices" :key="one.id" :value="one.id">{{ one.name }}</option>
  </select>
</template>

<style scoped>
select {
  flex: 1 1 6em;
  width: auto;
  min-width: 0;
  min-height: var(--touch);
}
</style>
