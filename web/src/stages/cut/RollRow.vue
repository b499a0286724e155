<script setup lang="ts">
/** Rolls by single frames, or by ten. */
import { BButton } from 'bootstrap-vue-next'
import { t } from '@/texts'

defineProps<{
  label: string
  disabled?: boolean
  /** What a roll does, by how many frames it is. */
  help: (by: number) => string
  /** How the names of its buttons for tests begin. */
  test: string
}>()
defineEmits<{ roll: [by: number] }>()
const ROLLS = [-10, -1, 1, 10]
const name = t('cut.joinView.roll')
</script>

<template>
  <div class="rolls" role="group" :aria-label="label">
    <span class="small quiet">{{ name }}</span>
    <BButton
      v-for="by in ROLLS"
      :key="by"
      variant="secondary"
      :disabled="disabled"
      :title="help(by)"
      :data-test="`${test}${by}`"
      @click="$emit('roll', by)"
    >
      {{ by > 0 ? '+' : '−' }}{{ Math.abs(by) }}
    </BButton>
    <slot />
  </div>
</template>

<style scoped>
.rolls {
  display: flex;
  align-items: center;
  gap: 5px;
}
.rolls > :deep(.btn) {
  flex: 1;
  padding: 2px 6px;
}
</style>
