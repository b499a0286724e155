<script setup lang="ts">
/** The pins that bend a layer: their keys, the chain that carries them along, each by itself. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import IconTrash from '~icons/tabler/trash'
import KeyButton from '@/controls/KeyButton.vue'
import ValueField from '@/controls/ValueField.vue'
import { keyAt, toggledKey, valueAt, withKey } from '@/motion/keys'
import { keyedState } from '@/motion/props'
import type { Layer } from '@/inhand/useLayer'
import type { Warp } from '@/picture/warps'
import { useMoving } from '@/stores/moving'
import { useProject } from '@/stores/project'
import { frameTicks } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'

const props = defineProps<{ layer: Layer; warp: Extract<Warp, { kind: 'pins' }> }>()
const moving = useMoving()
const project = useProject()

const all = computed(() => props.warp.pins ?? [])
const chain = computed(() => props.warp.chain ?? [])
const place = (id: string) => all.value.findIndex((pin) => pin.id === id) + 1

const removePin = (id: string) => props.layer.removeItem(`warp/pins/${id}`)

/** From the top down, as they lie on the picture. */
function chainAll() {
  const order = [...all.value].sort((a, b) => a.rest[1] - b.rest[1]).map((pin) => pin.id ?? '')
  const later = props.warp.later || moving.later * frameTicks(project.rate)
  props.layer.setWhole({ 'warp/chain': order, 'warp/later': later })
}
/** A pin that stays where it holds the layer is left out: the root. */
function inOrOut(id: string) {
  const others = chain.value.filter((one) => one !== id)
  const more = others.length === chain.value.length ? [...others, id] : others
  props.layer.setWhole({ 'warp/chain': more.length > 1 ? more : [] })
}
function toTop(id: string) {
  props.layer.setWhole({ 'warp/chain': [id, ...chain.value.filter((one) => one !== id)] })
}

const frames = computed(() => Math.round((props.warp.later ?? 0) / frameTicks(project.rate)))
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
</script>

<template>
  <TrayItem :name="$t('move.warpPart.allPins')">
    <div class="line">
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
    :value="(warp.stiffness ?? 0.3) * 100"
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
          }}<span v-if="chain[0] === pin.id" class="tiny quiet leads">
            {{ $t('move.warpPart.leads') }}</span
          >
        </button>
        <button
          v-if="chain.length"
          class="btn btn-bare tiny"
          :data-test="`chain-${index}`"
          @click="inOrOut(pin.id ?? '')"
        >
          {{
            chain.includes(pin.id ?? '') ? $t('move.warpPart.leaveOut') : $t('move.warpPart.joinIn')
          }}
        </button>
        <button
          v-if="chain.includes(pin.id ?? '') && chain[0] !== pin.id"
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

<style scoped>
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
.leads {
  margin-left: 6px;
}
</style>
