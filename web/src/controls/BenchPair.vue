<script setup lang="ts">
/** A bench of two panels: what there is beside the parts of what is in hand. */
import { useProject } from '@/stores/project'

defineProps<{
  /** Name of the panel of what is in hand. */
  label: string
  /** Whether something is in hand. */
  filled: boolean
  /** Whether the first panel stays in sight on a phone while the second is scrolled. */
  sticky?: boolean
  /** Whether the first panel takes less of the width. */
  narrow?: boolean
}>()
const project = useProject()
</script>

<template>
  <div class="pair" :class="{ narrow }">
    <div class="left" :class="{ sticky }"><slot name="left" /></div>
    <section v-if="filled" class="panel right" :aria-label="label">
      <div class="tools"><slot name="parts" /></div>
      <div class="tools second"><slot name="tools" /></div>
      <!-- Drawn anew when a step was refused: fields and switches show again what is. -->
      <div :key="project.refusals" class="body"><slot /></div>
    </section>
    <section v-else class="panel right empty"><slot name="empty" /></section>
  </div>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.1fr);
  gap: 12px;
  padding: 12px 14px;
  min-height: 0;
}
.pair.narrow {
  grid-template-columns: minmax(250px, 0.7fr) minmax(0, 1.3fr);
}
.left {
  display: grid;
  min-height: 0;
  min-width: 0;
}
.right {
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr);
  gap: 4px;
  padding-right: 6px;
}
.right.empty {
  display: grid;
}
.tools {
  display: flex;
  align-items: center;
  gap: 2px;
  min-width: 0;
}
.tools :deep(.choices) {
  width: 100%;
  flex-wrap: nowrap;
  overflow-x: auto;
  scrollbar-width: none;
}
.tools :deep(.choices button) {
  flex: 1;
  padding: 4px 8px;
}
.second {
  min-height: var(--touch);
}
.second :deep(.btn) {
  font-size: 13px;
  padding: 0 6px;
  gap: 5px;
}
.second :deep([aria-pressed='true']) {
  background: #453c4e;
  color: var(--text);
}
.second :deep(.grow) {
  flex: 1;
}
.body {
  overflow-y: auto;
  scrollbar-width: thin;
  padding: 0 8px 0 3px;
  margin-left: -3px;
  min-height: 0;
}
.body :deep(.field) {
  min-height: 34px;
}
@media (max-width: 759px) {
  .pair,
  .pair.narrow {
    grid-template-columns: 1fr;
    grid-auto-rows: max-content;
    overflow-y: auto;
    padding-top: 20px;
  }
  .left.sticky {
    position: sticky;
    top: -20px;
    z-index: 2;
    box-shadow: 0 10px 12px -8px #17141a;
  }
  .body {
    overflow: visible;
  }
}
@media (pointer: coarse) {
  .body :deep(.field) {
    min-height: var(--touch);
  }
}
</style>
