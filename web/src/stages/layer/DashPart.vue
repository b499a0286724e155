<script setup lang="ts">
/** The dashes of a stroke: a row that is offered, or each length by itself, with keys. */
import { computed } from 'vue'
import ChoiceRow from '@/controls/ChoiceRow.vue'
import ValueField from '@/controls/ValueField.vue'
import type { Layer } from '@/inhand/useLayer'
import { valueAt } from '@/motion/keys'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'

const props = defineProps<{ layer: Layer }>()

const DASHES = [
  { id: 'whole', name: t('layer.shapePart.whole'), dashes: [] },
  { id: 'dots', name: t('layer.shapePart.dots'), dashes: [0.1, 2] },
  { id: 'short', name: t('layer.shapePart.short'), dashes: [2, 2] },
  { id: 'long', name: t('layer.shapePart.long'), dashes: [5, 2.5] },
  { id: 'mixed', name: t('layer.shapePart.mixed'), dashes: [5, 2.5, 0.1, 2.5] },
] as const

/** Lengths of line and gap in turn, in canvas pixels, as they are at the playhead. */
const lengths = computed(() => {
  const row = props.layer.prop('stroke/dashes') as unknown[] | undefined
  return (row ?? []).map((one) => Number(valueAt(one, props.layer.local.value)))
})

/** Dashes are given in widths of the stroke, and kept in canvas pixels. */
function setDashes(id: (typeof DASHES)[number]['id']) {
  const width = Number(props.layer.now('stroke/width', 12)) || 12
  const found = DASHES.find((one) => one.id === id)
  props.layer.setWhole({ 'stroke/dashes': found?.dashes.map((one) => one * width) ?? [] })
}
const dashed = computed(() => {
  const now = lengths.value
  const width = Number(props.layer.now('stroke/width', 12)) || 12
  const same = DASHES.find(
    ({ dashes }) =>
      dashes.length === now.length &&
      dashes.every((one, index) => Math.abs(one * width - (now[index] ?? 0)) < 0.2),
  )
  return same?.id ?? (now.length ? 'own' : 'whole')
})
const dashChoices = computed(() => [
  ...DASHES,
  ...(dashed.value === 'own' ? [{ id: 'own' as const, name: t('layer.shapePart.own') }] : []),
])
const pathOf = (index: number) => `stroke/dashes/${index}`
function nameOf(index: number): string {
  const number = lengths.value.length > 2 ? Math.floor(index / 2) + 1 : ''
  return (
    index % 2 ? t('layer.dashPart.gap', { number }) : t('layer.dashPart.dash', { number })
  ).trim()
}
</script>

<template>
  <TrayItem :name="$t('layer.shapePart.dashes')">
    <ChoiceRow
      :name="$t('layer.shapePart.dashes')"
      :choices="dashChoices"
      :taken="dashed"
      @take="$event !== 'own' && setDashes($event)"
    />
  </TrayItem>
  <ValueField
    v-for="(length, index) in lengths"
    :key="index"
    :label="nameOf(index)"
    :value="length"
    :low="0.5"
    :high="200"
    :step="0.5"
    :digits="1"
    unit="px"
    :keyed="layer.keyed(pathOf(index))"
    @trying="layer.trying({ [pathOf(index)]: $event })"
    @set="layer.set({ [pathOf(index)]: $event })"
    @key="layer.toggleKey(pathOf(index), length)"
  />
</template>
