<script setup lang="ts">
/** Moves by single pixels, or by ten. */
import { ref } from 'vue'
import IconDown from '~icons/tabler/chevron-down'
import IconLeft from '~icons/tabler/chevron-left'
import IconRight from '~icons/tabler/chevron-right'
import IconUp from '~icons/tabler/chevron-up'
import ChoiceGroup from './ChoiceGroup.vue'

defineProps<{ disabled?: boolean }>()
const emit = defineEmits<{ nudge: [by: { x: number; y: number }] }>()
const pace = ref(1)
const PACES = [
  { id: 1, name: '1 px' },
  { id: 10, name: '10 px' },
]
const WAYS = [
  { name: 'left', icon: IconLeft, x: -1, y: 0 },
  { name: 'up', icon: IconUp, x: 0, y: -1 },
  { name: 'down', icon: IconDown, x: 0, y: 1 },
  { name: 'right', icon: IconRight, x: 1, y: 0 },
]
</script>

<template>
  <div class="pad" role="group" aria-label="Nudge">
    <button
      v-for="way in WAYS"
      :key="way.name"
      type="button"
      class="btn btn-secondary"
      :aria-label="`Nudge ${way.name} by ${pace} px`"
      :disabled="disabled"
      :data-test="`nudge-${way.name}`"
      @click="emit('nudge', { x: way.x * pace, y: way.y * pace })"
    >
      <component :is="way.icon" aria-hidden="true" />
    </button>
    <ChoiceGroup label="Pace" :choices="PACES" :taken="pace" @take="pace = $event" />
  </div>
</template>

<style scoped>
.pad {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
.btn {
  flex: 1;
  min-width: 36px;
  min-height: 44px;
  padding: 0;
  touch-action: manipulation;
}
.pad :deep(.choices) {
  flex-wrap: nowrap;
}
.pad :deep(.choices button) {
  padding: 4px 8px;
  white-space: nowrap;
}
@media (pointer: coarse) {
  .btn {
    min-width: var(--touch);
  }
}
</style>
