<script setup lang="ts">
/** Further grades, limited by masks, brightness and hue. */
import { BButton, BDropdown, BDropdownItemButton, BFormCheckbox } from 'bootstrap-vue-next'
import { computed } from 'vue'
import IconEye from '~icons/tabler/eye'
import IconEyeOff from '~icons/tabler/eye-off'
import IconPlus from '~icons/tabler/plus'
import IconTrash from '~icons/tabler/trash'
import IconUp from '~icons/tabler/arrow-up'
import ValueField from '@/controls/ValueField.vue'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import { isKeyed, keyAt, valueAt, changedAt, withKey, withoutKey } from '@/motion/keys'
import { useGrading } from '@/stores/grading'
import { useKit } from '@/stores/kit'
import { newSeed } from '@/stores/project'
import RangeSliders from './RangeSliders.vue'
import { MASKS, newMask, STARTS, type Mask } from './zones'
import type { useGrade, Zone } from './useGrade'

const props = defineProps<{ grade: ReturnType<typeof useGrade> }>()
defineEmits<{ adjust: [] }>()
const kit = useKit()
const grading = useGrading()

const zone = computed(() => props.grade.zone.value)
const masks = computed<Mask[]>(() => zone.value?.masks ?? [])
const mask = computed(() => masks.value[grading.mask] ?? masks.value[0] ?? null)
const amount = computed(() => zone.value?.amount)

const JOINS = [
  { id: 'add', name: 'Add' },
  { id: 'subtract', name: 'Subtract' },
  { id: 'intersect', name: 'Intersect' },
] as const

async function add(start: (typeof STARTS)[number]) {
  const before = new Set(props.grade.zones.value.map((one) => one.id))
  const zone = { name: start.name, ...start.zone }
  const done = await props.grade.send({
    kind: 'add_zone',
    seed: newSeed(),
    clips: props.grade.ids.value,
    zone: zone as never,
  })
  const fresh = props.grade.zones.value.find((one) => !before.has(one.id))
  if (done && fresh?.id) choose(fresh)
}

function choose(one: Zone) {
  grading.zone = grading.zone === one.id ? '' : (one.id ?? '')
  grading.mask = 0
  grading.matte = false
}

const set = (values: Record<string, unknown>) => props.grade.setZone(values)
const whole = (values: Record<string, unknown>, path: string) =>
  Object.fromEntries(Object.entries(values).map(([name, value]) => [`${path}/${name}`, value]))

function withMask(change: Record<string, unknown>): Record<string, unknown> {
  const index = mask.value ? masks.value.indexOf(mask.value) : -1
  return { masks: masks.value.map((one, i) => (i === index ? { ...one, ...change } : one)) }
}

function addMask(kind: Mask['kind']) {
  set({ masks: [...masks.value, newMask(kind, masks.value.length ? 'add' : 'add')] })
  grading.mask = masks.value.length
}

function removeMask() {
  set({ masks: masks.value.filter((one) => one !== mask.value) })
  grading.mask = 0
}

function setOn(one: Zone) {
  props.grade.send({
    kind: 'set_grade',
    clips: props.grade.ids.value,
    values: { on: one.on === false },
    zone: one.id ?? null,
  })
}

function remove(one: Zone) {
  const step = { kind: 'remove_zone', clips: props.grade.ids.value, zone: one.id ?? '' } as const
  props.grade.send(step)
  if (grading.zone === one.id) grading.whole()
}

function earlier(one: Zone, to: number) {
  if (to < 0) return
  const clips = props.grade.ids.value
  props.grade.send({ kind: 'order_zone', clips, zone: one.id ?? '', to })
}

function amountKey() {
  const local = props.grade.local.value
  const prop = amount.value ?? 100
  const next =
    isKeyed(prop) && keyAt(prop, local)
      ? withoutKey(prop, local)
      : withKey(prop, local, valueAt(prop, local))
  set({ amount: next })
}
const amountKeyed = computed(() => {
  if (!isKeyed(amount.value)) return 'none' as const
  return keyAt(amount.value, props.grade.local.value) ? ('here' as const) : ('some' as const)
})
const changedAmount = (value: number) => ({
  amount: changedAt(amount.value, props.grade.local.value, Math.min(100, Math.max(0, value))),
})
</script>

<template>
  <fieldset class="zones" :disabled="grade.locked.value">
    <div v-if="!grade.zones.value.length" class="adding">
      <span class="quiet tiny">Add a zone:</span>
      <BButton
        v-for="one in STARTS"
        :key="one.id"
        size="sm"
        variant="secondary"
        :title="one.help"
        :data-test="`zone-${one.id}`"
        @click="add(one)"
      >
        {{ one.name }}
      </BButton>
    </div>
    <p v-if="!grade.zones.value.length" class="tiny quiet">
      A zone is a further grade that works only where you say: inside a mask, at a brightness, at a
      hue, or where all of these meet. So only the sky, only the skin, only the paper changes.
    </p>
    <ul class="list">
      <li v-for="(one, index) in grade.zones.value" :key="one.id" :class="{ here: zone === one }">
        <button
          class="btn btn-bare"
          :aria-label="one.on === false ? `Switch ${one.name} on` : `Switch ${one.name} off`"
          @click="setOn(one)"
        >
          <IconEyeOff v-if="one.on === false" aria-hidden="true" />
          <IconEye v-else aria-hidden="true" />
        </button>
        <button
          class="name"
          :aria-pressed="zone === one"
          :data-test="`pick-zone-${index}`"
          @click="choose(one)"
        >
          {{ one.name || `Zone ${index + 1}` }}
        </button>
        <button
          v-if="index > 0"
          class="btn btn-bare"
          :aria-label="`Let ${one.name} work earlier`"
          title="Works earlier"
          @click="earlier(one, index - 1)"
        >
          <IconUp aria-hidden="true" />
        </button>
        <button class="btn btn-bare" :aria-label="`Remove ${one.name}`" @click="remove(one)">
          <IconTrash aria-hidden="true" />
        </button>
      </li>
    </ul>
    <BDropdown
      v-if="grade.zones.value.length"
      size="sm"
      variant="secondary"
      teleport-to="body"
      strategy="fixed"
      data-test="more-zones"
    >
      <template #button-content><IconPlus aria-hidden="true" /> Add a zone</template>
      <BDropdownItemButton
        v-for="one in STARTS"
        :key="one.id"
        :title="one.help"
        :data-test="`zone-${one.id}`"
        @click="add(one)"
      >
        {{ one.name }} <span class="tiny quiet">{{ one.help }}</span>
      </BDropdownItemButton>
    </BDropdown>
    <template v-if="zone">
      <div class="line">
        <BButton size="sm" variant="primary" data-test="grade-zone" @click="$emit('adjust')">
          Grade this zone
        </BButton>
        <BButton
          size="sm"
          variant="secondary"
          :aria-pressed="grading.matte"
          title="White is what the zone means, black what it leaves alone"
          data-test="matte"
          @click="grading.matte = !grading.matte"
        >
          {{ grading.matte ? 'Hide matte' : 'Show matte' }}
        </BButton>
        <BFormCheckbox
          switch
          :model-value="zone.invert ?? false"
          @update:model-value="set({ invert: $event })"
        >
          Everything but that
        </BFormCheckbox>
      </div>
      <ValueField
        label="Amount"
        help="How much of this zone's grade"
        :value="Number(valueAt(amount, grade.local.value) ?? 100)"
        :low="0"
        :high="100"
        :step="1"
        unit="%"
        :reset="100"
        :keyed="amountKeyed"
        @trying="grade.tryZone(changedAmount($event))"
        @set="set(changedAmount($event))"
        @key="amountKey"
      />
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
          <BDropdownItemButton v-for="one in MASKS" :key="one.id" @click="addMask(one.id)">
            {{ one.name }}
          </BDropdownItemButton>
        </BDropdown>
        <BButton v-if="mask" size="sm" variant="secondary" @click="removeMask">Remove</BButton>
      </div>
      <template v-if="mask">
        <div class="line">
          <ChoiceGroup
            v-if="masks.indexOf(mask) > 0"
            label="How it joins"
            :choices="JOINS"
            :taken="mask.join ?? 'add'"
            @take="set(withMask({ join: $event }))"
          />
          <BFormCheckbox
            switch
            :model-value="mask.invert ?? false"
            @update:model-value="set(withMask({ invert: $event }))"
          >
            Outside of it
          </BFormCheckbox>
        </div>
        <RangeSliders
          :controls="kit.grade?.masks[mask.kind] ?? []"
          :values="mask as unknown as Record<string, unknown>"
          :local="grade.local.value"
          @trying="grade.tryZone(withMask($event))"
          @set="set(withMask($event))"
        />
      </template>
      <BFormCheckbox
        switch
        :model-value="Boolean(zone.brightness)"
        @update:model-value="set({ brightness: $event ? {} : null })"
      >
        Only some brightness
      </BFormCheckbox>
      <RangeSliders
        v-if="zone.brightness"
        :controls="kit.grade?.ranges.brightness ?? []"
        :values="zone.brightness as unknown as Record<string, unknown>"
        :local="grade.local.value"
        @trying="grade.tryZone(whole($event, 'brightness'))"
        @set="set(whole($event, 'brightness'))"
      />
      <BFormCheckbox
        switch
        :model-value="Boolean(zone.hues)"
        @update:model-value="set({ hues: $event ? {} : null })"
      >
        Only some hues
      </BFormCheckbox>
      <RangeSliders
        v-if="zone.hues"
        :controls="kit.grade?.ranges.hues ?? []"
        :values="zone.hues as unknown as Record<string, unknown>"
        :local="grade.local.value"
        @trying="grade.tryZone(whole($event, 'hues'))"
        @set="set(whole($event, 'hues'))"
      />
    </template>
  </fieldset>
</template>

<style scoped>
.zones {
  display: grid;
  gap: 6px;
  min-width: 0;
}
.adding,
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 8px;
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
.list li {
  display: flex;
  align-items: center;
  background: var(--raised);
  border-radius: var(--fold);
}
.list .here {
  outline: 2px solid var(--accent);
}
.name {
  flex: 1;
  border: 0;
  background: none;
  color: var(--text);
  text-align: left;
  font-weight: 600;
  min-height: var(--touch);
  min-width: 0;
}
p {
  margin: 0;
}
</style>
