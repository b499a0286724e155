<script setup lang="ts">
/** Bending the layer: by pins that are tapped onto it, or by a grid. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import KeyButton from '@/controls/KeyButton.vue'
import ValueField from '@/controls/ValueField.vue'
import type { Layer } from '@/inhand/useLayer'
import { useMoving } from '@/stores/moving'
import { useNotes } from '@/stores/notes'
import { roomAround, type GridWarp, type Warp } from '@/picture/warps'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import PinsPart from './PinsPart.vue'

const props = defineProps<{ layer: Layer }>()
const moving = useMoving()
const notes = useNotes()

type Pins = Extract<Warp, { kind: 'pins' }>
const clip = computed(() => props.layer.clip.value)
const warp = computed(() => clip.value?.warp ?? null)
const pins = computed<Pins | null>(() => (warp.value?.kind === 'pins' ? warp.value : null))
const grid = computed<GridWarp | null>(() => (warp.value?.kind === 'grid' ? warp.value : null))

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

const divide = (columns: number, rows: number) =>
  props.layer.send({
    kind: 'divide_grid',
    clip: props.layer.clip.value?.id ?? '',
    columns: Math.min(12, Math.max(1, Math.round(columns))),
    rows: Math.min(12, Math.max(1, Math.round(rows))),
  })
const OVER = [
  {
    id: 'all',
    name: t('move.warpPart.allOfIt'),
    help: t('move.warpPart.theGridLiesOverAll'),
    test: 'grid-over-all',
  },
  {
    id: 'seen',
    name: t('move.warpPart.whatIsSeen'),
    help: t('move.warpPart.theGridLiesOverSeen'),
    test: 'grid-over-seen',
  },
] as const

/** Over what is seen of the layer now, or over all of its picture. */
function fit(over: (typeof OVER)[number]['id']) {
  const { seen, aspect } = moving.sheet ?? { seen: null, aspect: 1 }
  if (over === 'seen' && !seen) return notes.told(t('move.warpPart.nothingIsSeen'))
  const clip = props.layer.clip.value?.id ?? ''
  const area = over === 'seen' && seen ? roomAround(seen) : null
  return props.layer.send({ kind: 'fit_grid', clip, area, aspect })
}
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
      <p v-else-if="pins && !pins.pins?.length" class="tiny quiet">
        {{ $t('move.warpPart.tapTheLayerOnThe') }}
      </p>
    </TrayItem>
    <PinsPart v-if="pins?.pins?.length" :layer="layer" :warp="pins" />
    <TrayItem
      v-if="grid || (pins?.pins ?? []).length > 1"
      :name="$t('move.warpPart.several')"
      :told="moving.points.length ? String(moving.points.length) : ''"
    >
      <div class="line">
        <label class="form-check form-switch name">
          <input
            v-model="moving.severalPoints"
            type="checkbox"
            role="switch"
            class="form-check-input"
            data-test="several-points"
          />
          <span>{{ $t('move.warpPart.severalAtOnce') }}</span>
        </label>
        <BButton
          v-if="moving.points.length"
          size="sm"
          variant="secondary"
          @click="moving.points = []"
        >
          {{ $t('move.warpPart.letGo', moving.points.length) }}
        </BButton>
      </div>
    </TrayItem>
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
      <TrayItem
        :name="$t('move.warpPart.over')"
        :told="grid.area ? $t('move.warpPart.whatIsSeen') : $t('move.warpPart.allOfIt')"
      >
        <ChoiceGroup
          :label="$t('move.warpPart.over')"
          :choices="OVER"
          :taken="grid.area ? 'seen' : 'all'"
          @take="fit"
        />
      </TrayItem>
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
</style>
