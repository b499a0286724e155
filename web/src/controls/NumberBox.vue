<script setup lang="ts">
/** A number with its name, small, for rows of several. */
import { ref, watch } from 'vue'

const props = defineProps<{
  label: string
  value: number
  unit?: string
  digits?: number
  disabled?: boolean
}>()
const emit = defineEmits<{ set: [value: number] }>()
const shown = () => String(Number(props.value.toFixed(props.digits ?? 2)))
const text = ref(shown())
watch(
  () => props.value,
  () => (text.value = shown()),
)

function keep() {
  const value = Number(text.value.replace(',', '.'))
  if (text.value.trim() && Number.isFinite(value) && text.value !== shown()) emit('set', value)
  else text.value = shown()
}
</script>

<template>
  <label class="number">
    <span class="tiny soft">{{ label }}</span>
    <input
      v-model="text"
      inputmode="decimal"
      :disabled="disabled"
      @change="keep"
      @keydown.enter.prevent="keep"
      @keydown.esc.stop="text = shown()"
      @focus="($event.target as HTMLInputElement).select()"
    />
    <span v-if="unit" class="tiny quiet">{{ unit }}</span>
  </label>
</template>

<style scoped>
.number {
  display: inline-flex;
  align-items: center;
  gap: 5px;
}
input {
  width: 58px;
  min-height: 32px;
  padding: 0 4px;
  border: 0;
  border-bottom: 1px dashed var(--line);
  background: none;
  color: var(--text);
  font-weight: 600;
  text-align: right;
}
@media (pointer: coarse) {
  input {
    min-height: 44px;
  }
}
</style>
