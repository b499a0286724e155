<script setup lang="ts">
/** The masks of a zone: one in hand, with its values. */
import { BButton, BDropdown, BDropdownItemButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import IconPlus from '~icons/tabler/plus'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import { useGrading } from '@/stores/grading'
import { useKit } from '@/stores/kit'
import RangeSliders from '@/controls/RangeSliders.vue'
import TrayItem from '@/tray/TrayItem.vue'
import { MASKS, newMask, type Mask } from './zones'
import type { useGrade, Zone } from './useGrade'
import SwitchField from '@/controls/SwitchField.vue'

const props = defineProps<{ grade: ReturnType<typeof useGrade>; zone: Zone }>()
const kit = useKit()
const grading = useGrading()

const masks = computed<Mask[]>(() => props.zone.masks ?? [])
const mask = computed(() => masks.value[grading.mask] ?? masks.value[0] ?? null)
const set = (values: Record<string, unknown>) => props.grade.setZone(values)

const JOINS = [
  { id: 'add', name: 'Add' },
  { id: 'subtract', name: 'Subtract' },
  { id: 'intersect', name: 'Intersect' },
] as const

function withMask(change: Record<string, unknown>): Record<string, unknown> {
  const index = mask.value ? masks.value.indexOf(mask.value) : -1
  return Object.fromEntries(
    Object.entries(change).map(([name, value]) => [`masks/${index}/${name}`, value]),
  )
}

const list = computed(() => `grade/zones/${props.zone.id}/masks`)

function add(kind: Mask['kind']) {
  const clips = props.grade.ids.value
  props.grade.send({ kind: 'add_item', clips, list: list.value, item: newMask(kind) })
  grading.mask = masks.value.length
}

function remove() {
  const clips = props.grade.ids.value
  const item = `${list.value}/${mask.value ? masks.value.indexOf(mask.value) : 0}`
  props.grade.send({ kind: 'remove_item', clips, item })
  grading.mask = 0
}
</script>

<template>
  <div class="masks tray-group">
    <TrayItem name="Masks">
      <div class="line">
        <strong class="tiny quiet">Masks</strong>
        <ChoiceGroup
          v-if="masks.length > 1"
          label="Mask in hand"
          :choices="masks.map((one, index) => ({ id: index, name: `${index + 1} ${one.kind}` }))"
          :taken="Math.max(0, mask ? masks.indexOf(mask) : 0)"
          @take="grading.mask = $event"
        />
        <BDropdown size="sm" variant="secondary" teleport-to="body" strategy="fixed">
          <template #button-content><IconPlus aria-hidden="true" /> Mask</template>
          <BDropdownItemButton v-for="one in MASKS" :key="one.id" @click="add(one.id)">
            {{ one.name }}
          </BDropdownItemButton>
        </BDropdown>
        <BButton v-if="mask" size="sm" variant="secondary" @click="remove">Remove</BButton>
      </div>
      <div v-if="mask" class="line">
        <ChoiceGroup
          v-if="masks.indexOf(mask) > 0"
          label="How it joins"
          :choices="JOINS"
          :taken="mask.join ?? 'add'"
          @take="set(withMask({ join: $event }))"
        />
        <SwitchField :on="mask.invert ?? false" @update:on="set(withMask({ invert: $event }))">
          Outside of it
        </SwitchField>
      </div>
    </TrayItem>
    <RangeSliders
      v-if="mask"
      :controls="kit.grade?.masks[mask.kind] ?? []"
      :values="mask as unknown as Record<string, unknown>"
      :local="grade.local.value"
      @trying="grade.tryZone(withMask($event))"
      @set="set(withMask($event))"
    />
  </div>
</template>

<style scoped>
.masks {
  display: grid;
  gap: 6px;
  min-width: 0;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 8px;
}
</style>
