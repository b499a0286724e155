<script setup lang="ts">
/** What an effect reads besides its layer: one of several by name, one that is gone, or none. */
import { computed } from 'vue'
import TrayItem from '@/tray/TrayItem.vue'

const props = defineProps<{
  label: string
  help: string
  none: string
  gone: string
  choices: readonly { id: string; name: string }[]
  taken: string
}>()
defineEmits<{ set: [id: string] }>()
const now = computed(() => props.choices.find(({ id }) => id === props.taken))
</script>

<template>
  <TrayItem :name="label" :told="now?.name ?? none">
    <label class="line">
      <span class="name">{{ label }}</span>
      <select
        class="form-select form-select-sm"
        :value="taken"
        data-test="reads"
        @change="$emit('set', ($event.target as HTMLSelectElement).value)"
      >
        <option value="">{{ none }}</option>
        <option v-if="taken && !now" :value="taken">{{ gone }}</option>
        <option v-for="one in choices" :key="one.id" :value="one.id">{{ one.name }}</option>
      </select>
    </label>
    <p class="tiny quiet mb-0">{{ help }}</p>
  </TrayItem>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: 84px 1fr;
  align-items: center;
  gap: 8px;
}
.name {
  color: var(--soft);
}
select {
  min-height: var(--touch);
}
</style>
