<script setup lang="ts">
/** Tools and what belongs to them in one line, behind its name. */
defineProps<{
  name?: string
  /** What they are together, where they are a group. */
  label?: string
}>()
</script>

<template>
  <div class="line" :role="label ? 'group' : undefined" :aria-label="label">
    <span v-if="name" class="name">{{ name }}</span>
    <slot />
  </div>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 8px;
  min-height: var(--touch);
}
.name {
  min-width: 74px;
  color: var(--soft);
}
</style>
