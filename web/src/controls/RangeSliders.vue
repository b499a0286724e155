<script setup lang="ts">
/** Sliders for a part of a zone (a range, a mask) from what the core says of its parameters. */
import { computed } from 'vue'
import { t } from '@/texts'
import ValueField from './ValueField.vue'
import { changedAt, toggledKey, valueAt } from '@/motion/keys'
import { keyedState } from '@/motion/props'
import type { Control } from '@/stores/kit'

const props = defineProps<{
  controls: Control[]
  values: Record<string, unknown>
  local: number
}>()
const emit = defineEmits<{
  trying: [values: Record<string, unknown>]
  set: [values: Record<string, unknown>]
}>()

interface Row {
  key: string
  label: string
  help: string
  value: number
  rest: number
  control: Control
  /** Which of a pair, for points. */
  axis: number | null
}

const AXES = {
  centre: [t('words.across'), t('words.down')],
  size: [t('words.width'), t('words.height')],
} as Record<string, string[]>

const rows = computed(() => props.controls.flatMap(rowsOf))

function rowsOf(control: Control): Row[] {
  const now = valueAt(props.values[control.name], props.local) ?? control.default
  const name = control.name.charAt(0).toUpperCase() + control.name.slice(1)
  if (!Array.isArray(now)) {
    const [value, rest] = [Number(now), Number(control.default)]
    return [
      {
        key: control.name,
        label: name,
        help: control.help ?? '',
        value,
        rest,
        control,
        axis: null,
      },
    ]
  }
  return now.map((value, axis) => ({
    key: `${control.name}-${axis}`,
    label: AXES[control.name]?.[axis] ?? name,
    help: control.help ?? '',
    value: Number(value),
    rest: Number((control.default as number[])[axis]),
    control,
    axis,
  }))
}

function changed(row: Row, value: number): Record<string, unknown> {
  const { name } = row.control
  const prop = props.values[name]
  const now = valueAt(prop, props.local) ?? row.control.default
  const whole =
    row.axis === null ? value : (now as number[]).map((v, i) => (i === row.axis ? value : v))
  return { [name]: changedAt(prop, props.local, whole) }
}

const keyed = (row: Row) => keyedState(props.values[row.control.name], props.local)

function toggle(row: Row) {
  const { name } = row.control
  const prop = props.values[name]
  emit('set', { [name]: toggledKey(prop, props.local, row.control.default) })
}

/** Lengths in heights of the picture are shown in percent. */
const scaleOf = (row: Row) =>
  row.control.unit || (row.axis === null && row.control.name === 'turn') ? 1 : 100
const unitOf = (row: Row) => row.control.unit || '%'
</script>

<template>
  <ValueField
    v-for="row in rows"
    :key="row.key"
    :label="row.label"
    :help="row.help"
    :value="row.value * scaleOf(row)"
    :low="(row.control.low ?? 0) * scaleOf(row)"
    :high="(row.control.high ?? 1) * scaleOf(row)"
    :step="Math.max((row.control.step ?? 0.01) * scaleOf(row), 0.1)"
    :digits="scaleOf(row) === 100 ? 1 : 0"
    :unit="unitOf(row)"
    :reset="row.rest * scaleOf(row)"
    :keyed="keyed(row)"
    @trying="emit('trying', changed(row, $event / scaleOf(row)))"
    @set="emit('set', changed(row, $event / scaleOf(row)))"
    @key="toggle(row)"
  />
</template>
