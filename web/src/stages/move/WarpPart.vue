<script setup lang="ts">
/** Bending the layer: by pins that are tapped onto it, or by a grid. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import IconTrash from '~icons/tabler/trash'
import type { PicturedClip } from '@/api/types'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import KeyButton from '@/controls/KeyButton.vue'
import ValueField from '@/controls/ValueField.vue'
import { keyAt, toggledKey, valueAt, withKey } from '@/motion/keys'
import { keyedState } from '@/motion/props'
import type { Layer } from '@/inhand/useLayer'
import { useMoving } from '@/stores/moving'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
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
  {
    id: '',
    name: t('words.none'),
    help: t('move.warpPart.theLayerKeepsItsForm'),
    test: 'warp-none',
  },
  {
    id: 'pins',
    name: t('move.warpPart.pins'),
    help: t('move.warpPart.givesWayBetweenPins'),
    test: 'warp-pins',
  },
  {
    id: 'grid',
    name: t('move.warpPart.grid'),
    help: t('move.warpPart.aSmoothSheetThroughPoints'),
    test: 'warp-grid',
  },
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

const divide = (columns: number, rows: number) =>
  props.layer.send({
    kind: 'divide_grid',
    clip: props.layer.clip.value?.id ?? '',
    columns: Math.min(12, Math.max(1, Math.round(columns))),
    rows: Math.min(12, Math.max(1, Math.round(rows))),
  })
const told = (kind = '') => KINDS.find((one) => one.id === kind)?.name ?? ''
</script>

<template>
  <fieldset v-if="clip" class="warp" :disabled="layer.locked.value">
    <TrayItem :name="$t('move.warpPart.warp')" :told="told(warp?.kind)">
      <ChoiceGroup
        :label="$t('move.warpPart.warp')"
        :choices="KINDS"
        :taken="warp?.kind ?? ''"
        @take="choose($event)"
      />
      <p v-if="!warp" class="tiny quiet">
        {{ $t('move.warpPart.pinsBendACutOut') }}
      </p>
    </TrayItem>
    <template v-if="pins">
      <TrayItem :name="$t('move.warpPart.allPins')">
        <p v-if="!all.length" class="tiny quiet">
          {{ $t('move.warpPart.tapTheLayerOnThe') }}
        </p>
        <div v-else class="line">
          <span class="name">{{ $t('move.warpPart.countOfPins', all.length) }}</span>
          <KeyButton
            :label="$t('move.warpPart.allPins')"
            :keyed="pinsKeyed"
            data-test="key-pins"
            @click="keyPins"
          />
          <BButton size="sm" variant="secondary" @click="backToRest">{{
            $t('move.warpPart.backToRest')
          }}</BButton>
        </div>
      </TrayItem>
      <ValueField
        :label="$t('move.warpPart.stiffness')"
        :help="$t('move.warpPart.howFarABendSpreads')"
        :value="(pins.stiffness ?? 0.3) * 100"
        :low="0"
        :high="100"
        :step="5"
        :reset="30"
        unit="%"
        @trying="layer.tryWhole({ 'warp/stiffness': $event / 100 })"
        @set="layer.setWhole({ 'warp/stiffness': $event / 100 })"
      />
      <TrayItem v-if="all.length > 1" :name="$t('move.warpPart.chain')">
        <div class="line">
          <span class="name">{{ $t('move.warpPart.chain') }}</span>
          <BButton
            v-if="!chain.length"
            size="sm"
            variant="secondary"
            :title="$t('move.warpPart.movingTheTopPinCarries')"
            data-test="chain-pins"
            @click="chainAll"
          >
            {{ $t('move.warpPart.fromTheTopDown') }}
          </BButton>
          <template v-else>
            <span class="tiny quiet">{{ chain.map(place).join(' → ') }}</span>
            <BButton size="sm" variant="secondary" @click="layer.setWhole({ 'warp/chain': [] })">
              {{ $t('move.warpPart.breakIt') }}
            </BButton>
          </template>
        </div>
      </TrayItem>
      <ValueField
        v-if="chain.length"
        :label="$t('move.warpPart.later')"
        :help="$t('move.warpPart.eachPinOfTheChain')"
        :value="frames"
        :low="0"
        :high="15"
        :step="1"
        :unit="$t('move.warpPart.fr')"
        data-test="chain-later"
        @trying="layer.tryWhole(later($event))"
        @set="layer.setWhole(later($event))"
      />
      <TrayItem :name="$t('move.warpPart.pins')" :told="String(all.length)">
        <ol class="pins">
          <li v-for="(pin, index) in all" :key="pin.id" :class="{ here: pin.id === moving.pin }">
            <button class="title" @click="moving.pin = pin.id ?? ''">
              {{ $t('move.warpPart.numberedPin', { index: index + 1 })
              }}<span v-if="chain[0] === pin.id" class="tiny quiet">
                {{ $t('move.warpPart.leads') }}</span
              >
            </button>
            <button
              v-if="chain.length && chain[0] !== pin.id"
              class="btn btn-bare tiny"
              @click="toTop(pin.id ?? '')"
            >
              {{ $t('move.warpPart.lead') }}
            </button>
            <KeyButton
              :label="$t('move.warpPart.numberedPin', { index: index + 1 })"
              :keyed="keyedState(pin.at, layer.local.value)"
              @click="layer.toggleKey(`warp/pins/${pin.id}/at`, pin.rest)"
            />
            <button
              class="btn btn-bare"
              :aria-label="$t('move.warpPart.deletePin', { index: index + 1 })"
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
        :label="$t('words.across')"
        :help="$t('move.warpPart.fieldsAcross')"
        :value="grid.columns ?? 3"
        :low="1"
        :high="8"
        :step="1"
        @set="divide($event, grid.rows ?? 3)"
      />
      <ValueField
        :label="$t('words.down')"
        :help="$t('move.warpPart.fieldsDown')"
        :value="grid.rows ?? 3"
        :low="1"
        :high="8"
        :step="1"
        @set="divide(grid.columns ?? 3, $event)"
      />
      <TrayItem :name="$t('move.warpPart.pose')">
        <div class="line">
          <span class="name">{{ $t('move.warpPart.pose') }}</span>
          <KeyButton
            :label="$t('move.warpPart.grid')"
            :keyed="layer.keyed('warp/points')"
            data-test="key-grid"
            @click="layer.toggleKey('warp/points', rest(grid.columns ?? 3, grid.rows ?? 3))"
          />
          <BButton
            size="sm"
            variant="secondary"
            @click="layer.set({ 'warp/points': rest(grid.columns ?? 3, grid.rows ?? 3) })"
          >
            {{ $t('move.warpPart.straighten') }}
          </BButton>
        </div>
        <p class="tiny quiet">
          {{ $t('move.warpPart.dragThePointsOnThe') }}
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
