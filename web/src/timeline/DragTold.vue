<script setup lang="ts">
/** Numbers above the finger that drags a clip or its end. */
defineProps<{ told: { px: number; y: number; words: string }; left: number }>()
</script>

<template>
  <div
    class="told tiny"
    aria-hidden="true"
    data-test="drag-told"
    :style="{ left: `${left + told.px}px`, top: `${told.y}px` }"
  >
    {{ told.words }}
  </div>
</template>

<style scoped>
.told {
  position: fixed;
  z-index: 5;
  transform: translate(-50%, -58px);
  padding: 3px 9px;
  border-radius: 8px 8px 2px 8px;
  background: rgb(23 20 26 / 92%);
  color: var(--text);
  font-weight: 600;
  font-variant-numeric: tabular-nums;
  white-space: pre;
  pointer-events: none;
}
</style>
