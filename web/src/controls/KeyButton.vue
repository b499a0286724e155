<script setup lang="ts">
import { t } from '@/texts'

/** Sets a key of a property at the playhead, or takes away the one that is there. */
export type Keyed = 'none' | 'some' | 'here'

defineProps<{ label: string; keyed: Keyed; disabled?: boolean }>()

const TOLD: Record<Keyed, string> = {
  none: t('controls.keyButton.setAKeyHere'),
  some: t('controls.keyButton.hasKeysSetOneHere'),
  here: t('controls.keyButton.removeTheKeyHere'),
}
</script>

<template>
  <button
    type="button"
    class="key"
    :class="keyed"
    :aria-label="`${label}: ${TOLD[keyed]}`"
    :title="TOLD[keyed].charAt(0).toUpperCase() + TOLD[keyed].slice(1)"
    :disabled="disabled"
  >
    <svg viewBox="0 0 14 20" aria-hidden="true"><path d="M7 1l6 6-6 12L1 7z" /></svg>
  </button>
</template>

<style scoped>
.key {
  border: 0;
  background: none;
  padding: 0;
  min-width: 24px;
  min-height: 32px;
  display: grid;
  place-items: center;
}
@media (pointer: coarse) {
  .key {
    min-width: var(--touch);
    min-height: var(--touch);
  }
}
svg {
  width: 11px;
  height: 17px;
  fill: none;
  stroke: #6f6778;
  stroke-width: 1.6;
}
.key:hover svg {
  stroke: var(--text);
}
.some svg,
.here svg {
  stroke: var(--mark);
}
.here svg {
  fill: var(--mark);
}
</style>
