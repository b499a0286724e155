<script setup lang="ts">
/** Fields for the parameters of a part, from what the core says of them. */
import { asWords } from '@/texts'
import { computed } from 'vue'
import { changedAt, toggledKey, valueAt } from '@/motion/keys'
import { keyedState } from '@/motion/props'
import type { Control } from '@/stores/kit'
import ChoiceRow from './ChoiceRow.vue'
import ColourField from './ColourField.vue'
import { rowOf, type Row } from './rows'
import TrayItem from '@/tray/TrayItem.vue'
import ValueField from './ValueField.vue'

const props = defineProps<{
  controls: Control[]
  values: Record<string, unknown>
  /** Tick from the start of the clip at which keys are read and set. */
  local: number
}>()
const emit = defineEmits<{
  trying: [values: Record<string, unknown>]
  set: [values: Record<string, unknown>]
}>()

const rows = computed(() =>
  props.controls.flatMap((control) =>
    rowOf(control, valueAt(props.values[control.name], props.local)),
  ),
)

function changed(row: Row, value: unknown): Record<string, unknown> {
  const { name } = row.control
  const prop = props.values[name]
  const now = valueAt(prop, props.local) ?? row.control.default
  const whole =
    row.axis === null ? value : (now as unknown[]).map((v, i) => (i === row.axis ? value : v))
  return { [name]: changedAt(prop, props.local, whole) }
}

function keyed(row: Row) {
  const { name, keyed } = row.control
  if (!keyed) return undefined
  return keyedState(props.values[name], props.local)
}

function toggle(row: Row) {
  const { name } = row.control
  const prop = props.values[name]
  emit('set', { [name]: toggledKey(prop, props.local, row.control.default) })
}
</script>

<template>
  <template v-for="row in rows" :key="row.key">
    <ColourField
      v-if="row.control.control === 'colour'"
      :label="row.label"
      :help="row.help"
      :value="String(row.value)"
      :keyed="keyed(row)"
      @trying="emit('trying', changed(row, $event))"
      @set="emit('set', changed(row, $event))"
      @key="toggle(row)"
    />
    <ChoiceRow
      v-else-if="row.control.control === 'choice'"
      :name="row.label"
      :help="row.help"
      :choices="(row.control.choices ?? []).map((id) => ({ id, name: asWords(id) }))"
      :taken="String(row.value)"
      @take="emit('set', { [row.control.name]: $event })"
    />
    <TrayItem
      v-else-if="row.control.control === 'switch'"
      :name="row.label"
      :told="row.value ? $t('words.isOn') : $t('words.isOff')"
    >
      <label class="form-check form-switch switch">
        <input
          type="checkbox"
          role="switch"
          class="form-check-input"
          :checked="Boolean(row.value)"
          @change="emit('set', { [row.control.name]: ($event.target as HTMLInputElement).checked })"
        />
        <span>{{ row.label }}</span>
      </label>
    </TrayItem>
    <ValueField
      v-else
      :label="row.label"
      :help="row.help"
      :value="Number(row.value) * row.factor"
      :low="(row.control.low ?? -2000) * row.factor"
      :high="(row.control.high ?? 2000) * row.factor"
      :step="(row.control.step ?? 1) * row.factor"
      :digits="row.digits"
      :unit="row.unit"
      :reset="Number(row.rest) * row.factor"
      :keyed="keyed(row)"
      @trying="emit('trying', changed(row, $event / row.factor))"
      @set="emit('set', changed(row, $event / row.factor))"
      @key="toggle(row)"
    />
  </template>
</template>

<style scoped>
.switch {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
  min-height: 34px;
  margin: 0;
}
</style>
