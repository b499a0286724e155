<script setup lang="ts">
/** Moves by single pixels, or by ten. */
import { ref } from 'vue'
import IconDown from '~icons/tabler/chevron-down'
import IconLeft from '~icons/tabler/chevron-left'
import IconRight from '~icons/tabler/chevron-right'
import IconUp from '~icons/tabler/chevron-up'
import { t } from '@/texts'
import ChoiceGroup from './ChoiceGroup.vue'

defineProps<{ disabled?: boolean }>()
const emit = defineEmits<{ nudge: [by: { x: number; y: number }] }>()
const pace = ref(1)
const PACES = [
  { id: 1, name: '1 px' },
  { id: 10, name: '10 px' },
]
const WAYS = [
  { id: 'left', name: t('controls.nudgePad.left'), icon: IconLeft, x: -1, y: 0 },
  { id: 'up', name: t('controls.nudgePad.up'), icon: IconUp, x: 0, y: -1 },
  { id: 'down', name: t('controls.nudgePad.down'), icon: IconDown, x: 0, y: 1 },
  { id: 'right', name: t('controls.nudgePad.right'), icon: IconRight, x: 1, y: 0 },
]
</script>

<template>
  <div class="pad" role="group" :aria-label="$t('controls.nudgePad.nudge')">
    <button
      v-for="way in WAYS"
      :key="way.id"
      type="button"
      class="btn btn-secondary"
      :aria-label="$t('controls.nudgePad.nudgeByPx', { name: way.name, pace })"
      :disabled="disabled"
      :data-test="`nudge-${way.id}`"
      @click="emit('nudge', { x: way.x * pace, y: way.y * pace })"
    >
      <component :is="way.icon" aria-hidden="true" />
    </button>
    <ChoiceGroup
      :label="$t('controls.nudgePad.pace')"
      :choices="PACES"
      :taken="pace"
      @take="pace = $event"
    />
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
