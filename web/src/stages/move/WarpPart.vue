<script setup lang="ts">
/** Bending the layer: by pins that are tapped onto it, or by a grid. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import IconTrash from '~icons/tabler/trash'
import type { PicturedClip } from '@/api/types'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import KeyButton from '@/controls/KeyButton.vue'
import ValueField from '@/controls/ValueField.vue'
import { isKeyed, keyAt, toggledKey, valueAt, withKey } from '@/motion/keys'
import { keyedState } from '@/motion/props'
import type { Layer } from '@/inhand/useLayer'
import { useMoving } from '@/stores/moving'
import { useProject } from '@/stores/project'
import { frameTicks } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'

const props = defineProps<{ layer: Layer }>()
const moving = useMoving()
const project = useProject()

type Warp = NonNullable<PicturedClip['warp']>
type Pins = Extract<Warp, { kind: 'pins' }>
type Grid = Extract<Warp, { kind: 'grid' }>
const clip = computed(() => props.layer.clip.value)
const warp = computed(() => clip.value?.warp ?? null)
const pins = computed<Pins | null>(() => (warp.value?.kind === 'pins' ? warp.value : null))
const grid = computed<Grid | null>(() => (warp.value?.kind === 'grid' ? warp.value : null))

const KINDS = [
  { id: '', name: 'None', help: 'The layer keeps its form', test: 'warp-none' },
  { id: 'pins', name: 'Pins', help: 'Gives way between pins', test: 'warp-pins' },
  { id: 'grid', name: 'Grid', help: 'A smooth sheet through points', test: 'warp-grid' },
] as const

const rest = (columns: number, rows: number) =>
  Array.from({ length: (columns + 1) * (rows + 1) }, () => [0, 0])

function choose(kind: '' | 'pins' | 'grid') {
  const made = {
    '': null,
    pins: { kind: 'pins', pins: [] },
    grid: { kind: 'grid', columns: 3, rows: 3, points: rest(3, 3) },
  }[kind]
  moving.pin = ''
  props.layer.setWhole({ warp: made })
}

const all = computed(() => pins.value?.pins ?? [])
const chain = computed(() => pins.value?.chain ?? [])
const place = (id: string) => all.value.findIndex((pin) => pin.id === id) + 1

const removePin = (id: string) => props.layer.removeItem(`warp/pins/${id}`)

/** From the top down, as they lie on the picture. */
function chainAll() {
  const order = [...all.value].sort((a, b) => a.rest[1] - b.rest[1]).map((pin) => pin.id ?? '')
  const later = pins.value?.later || moving.later * frameTicks(project.rate)
  props.layer.setWhole({ 'warp/chain': order, 'warp/later': later })
}
function toTop(id: string) {
  props.layer.setWhole({ 'warp/chain': [id, ...chain.value.filter((one) => one !== id)] })
}

const frames = computed(() => Math.round((pins.value?.later ?? 0) / frameTicks(project.rate)))
const later = (value: number) => ({ 'warp/later': Math.round(value) * frameTicks(project.rate) })

/** A key for every pin at the playhead, or none of them where all have one. */
function keyPins() {
  const at = props.layer.local.value
  const here = all.value.every((pin) => keyAt(pin.at, at))
  const values = all.value.map((pin) => [
    `warp/pins/${pin.id}/at`,
    here ? toggledKey(pin.at, at, pin.rest) : withKey(pin.at, at, valueAt(pin.at, at)),
  ])
  props.layer.setWhole(Object.fromEntries(values) as Record<string, unknown>)
}
const pinsKeyed = computed(() => {
  const states = all.value.map((pin) => keyedState(pin.at, props.layer.local.value))
  if (states.length && states.every((state) => state === 'here')) return 'here'
  return states.some((state) => state !== 'none') ? 'some' : 'none'
})
function backToRest() {
  const values = all.value.map((pin) => [`warp/pins/${pin.id}/at`, pin.rest])
  props.layer.set(Object.fromEntries(values) as Record<string, unknown>)
}

function divide(columns: number, rows: number) {
  props.layer.setWhole({ warp: { ...grid.value, columns, rows, points: rest(columns, rows) } })
}
const keyedGrid = computed(() => isKeyed(grid.value?.points))
</script>

<template>
  <fieldset v-if="clip" class="warp" :disabled="layer.locked.value">
    <TrayItem name="Warp" :told="warp?.kind ?? 'none'">
      <ChoiceGroup label="Warp" :choices="KINDS" :taken="warp?.kind ?? ''" @take="choose($event)" />
      <p v-if="!warp" class="tiny quiet">
        Pins bend a cut-out like paper held by fingers; a grid bends all of it smoothly.
      </p>
    </TrayItem>
    <template v-if="pins">
      <TrayItem name="All pins">
        <p v-if="!all.length" class="tiny quiet">
          Tap the layer on the picture to set pins: first those that hold it, then those to move.
        </p>
        <div v-else class="line">
          <span class="name">{{ all.length }} pin{{ all.length > 1 ? 's' : '' }}</span>
          <KeyButton label="All pins" :keyed="pinsKeyed" data-test="key-pins" @click="keyPins" />
          <BButton size="sm" variant="secondary" @click="backToRest">Back to rest</BButton>
        </div>
      </TrayItem>
      <ValueField
        label="Stiffness"
        help="How far a bend spreads"
        :value="(pins.stiffness ?? 0.3) * 100"
        :low="0"
        :high="100"
        :step="5"
        :reset="30"
        unit="%"
        @trying="layer.tryWhole({ 'warp/stiffness': $event / 100 })"
        @set="layer.setWhole({ 'warp/stiffness': $event / 100 })"
      />
      <TrayItem v-if="all.length > 1" name="Chain">
        <div class="line">
          <span class="name">Chain</span>
          <BButton
            v-if="!chain.length"
            size="sm"
            variant="secondary"
            title="Moving the top pin carries the others along"
            data-test="chain-pins"
            @click="chainAll"
          >
            From the top down
          </BButton>
          <template v-else>
            <span class="tiny quiet">{{ chain.map(place).join(' → ') }}</span>
            <BButton size="sm" variant="secondary" @click="layer.setWhole({ 'warp/chain': [] })">
              Break it
            </BButton>
          </template>
        </div>
      </TrayItem>
      <ValueField
        v-if="chain.length"
        label="Later"
        help="Each pin of the chain follows so many frames after the one above it"
        :value="frames"
        :low="0"
        :high="15"
        :step="1"
        unit="fr"
        data-test="chain-later"
        @trying="layer.tryWhole(later($event))"
        @set="layer.setWhole(later($event))"
      />
      <TrayItem name="Pins" :told="String(all.length)">
        <ol class="pins">
          <li v-for="(pin, index) in all" :key="pin.id" :class="{ here: pin.id === moving.pin }">
            <button class="title" @click="moving.pin = pin.id ?? ''">
              Pin {{ index + 1 }}<span v-if="chain[0] === pin.id" class="tiny quiet"> leads</span>
            </button>
            <button
              v-if="chain.length && chain[0] !== pin.id"
              class="btn btn-bare tiny"
              @click="toTop(pin.id ?? '')"
            >
              Lead
            </button>
            <KeyButton
              :label="`Pin ${index + 1}`"
              :keyed="keyedState(pin.at, layer.local.value)"
              @click="layer.toggleKey(`warp/pins/${pin.id}/at`, pin.rest)"
            />
            <button
              class="btn btn-bare"
              :aria-label="`Delete pin ${index + 1}`"
              @click="removePin(pin.id ?? '')"
            >
              <IconTrash aria-hidden="true" />
            </button>
          </li>
        </ol>
      </TrayItem>
    </template>
    <template v-if="grid">
      <ValueField
        label="Across"
        help="Fields across"
        :value="grid.columns ?? 3"
        :low="1"
        :high="8"
        :step="1"
        :disabled="keyedGrid"
        @set="divide(Math.min(12, Math.max(1, Math.round($event))), grid.rows ?? 3)"
      />
      <ValueField
        label="Down"
        help="Fields down"
        :value="grid.rows ?? 3"
        :low="1"
        :high="8"
        :step="1"
        :disabled="keyedGrid"
        @set="divide(grid.columns ?? 3, Math.min(12, Math.max(1, Math.round($event))))"
      />
      <TrayItem name="Pose">
        <div class="line">
          <span class="name">Pose</span>
          <KeyButton
            label="Grid"
            :keyed="layer.keyed('warp/points')"
            data-test="key-grid"
            @click="layer.toggleKey('warp/points', rest(grid.columns ?? 3, grid.rows ?? 3))"
          />
          <BButton
            size="sm"
            variant="secondary"
            @click="layer.set({ 'warp/points': rest(grid.columns ?? 3, grid.rows ?? 3) })"
          >
            Straighten
          </BButton>
        </div>
        <p class="tiny quiet">
          Drag the points on the picture. Set a key, move on, and bend again: each pose is a key.
          <template v-if="keyedGrid">The fields are fixed while it has keys.</template>
        </p>
      </TrayItem>
    </template>
  </fieldset>
</template>

<style scoped>
.warp {
  display: grid;
  gap: 6px;
  min-width: 0;
  align-content: start;
}
.line {
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 36px;
}
.name {
  min-width: 74px;
  color: var(--soft);
}
p {
  margin: 0;
}
.pins {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
.pins li {
  display: flex;
  align-items: center;
  background: var(--raised);
  border-radius: var(--fold);
  border: 1px solid transparent;
}
.pins .here {
  border-color: var(--accent);
}
.title {
  flex: 1;
  border: 0;
  background: none;
  color: var(--text);
  text-align: left;
  font-weight: 600;
  min-height: calc(var(--touch) - 6px);
  padding-left: 10px;
}
.phone .pins {
  display: flex;
  overflow-x: auto;
  scrollbar-width: none;
}
.phone .pins li {
  flex: none;
}
</style>
