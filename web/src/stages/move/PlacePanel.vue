<script setup lang="ts">
/** Where the layer in hand is at the playhead, by numbers. */
import { computed } from 'vue'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import NudgePad from '@/controls/NudgePad.vue'
import ValueField from '@/controls/ValueField.vue'
import type { Layer } from '@/inhand/useLayer'
import { useMoving } from '@/stores/moving'
import { isAxes } from '@/motion/keys'
import { AXES } from '@/motion/props'
import { withPivot } from '@/picture/placing'
import type { PicturedClip } from '@/api/types'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import { grownTogether } from './sizes'

const props = defineProps<{ layer: Layer }>()
const moving = useMoving()
const what = computed(() => (moving.pivoting ? 'pivot' : 'picture'))
const WHAT = [
  { id: 'picture', name: t('move.placePanel.picture'), test: 'place-picture' },
  {
    id: 'pivot',
    name: t('move.placePanel.pivot'),
    help: t('move.placePanel.thePointItTurnsAnd'),
    test: 'place-pivot',
  },
] as const

type Pair = [number, number]
const position = computed(() => props.layer.now<Pair>('place/position', [0, 0]))
const size = computed(() => props.layer.now<Pair>('place/size', [1, 1]))
const pivot = computed(() => props.layer.now<Pair>('place/pivot', [0, 0]))
const round = (value: number, digits = 1) => Number(value.toFixed(digits))

/** By pixels of the canvas. */
function nudge(by: { x: number; y: number }) {
  const moved = ([x, y]: Pair): Pair => [round(x + by.x), round(y + by.y)]
  const clip = props.layer.clip.value
  if (what.value === 'picture') props.layer.set({ 'place/position': moved(position.value) })
  else if (clip) {
    props.layer.setWhole(withPivot(clip, moved(pivot.value), props.layer.local.value))
  }
}

interface Row {
  label: string
  path: string
  value: number
  low: number
  high: number
  step: number
  unit: string
  rest: number
  digits: number
  values: (value: number) => Record<string, unknown>
}

const along = (pair: Pair, axis: number, value: number): Pair =>
  axis ? [pair[0], value] : [value, pair[1]]

/** A property of two numbers, or one of them where they have keys of their own. */
const wayOf = (path: string, axis: number) =>
  isAxes(props.layer.prop(path)) ? `${path}/${AXES[axis] ?? ''}` : path

function grown(axis: number, percent: number): Record<string, unknown> {
  const now = size.value
  const value = percent / 100
  const sized = moving.evenSize ? grownTogether(now, axis, value) : along(now, axis, value)
  return { 'place/size': sized }
}

const rows = computed<Row[]>(() => {
  const px = { low: -1200, high: 1200, step: 1, unit: 'px', rest: 0, digits: 0 }
  if (what.value === 'pivot') {
    return [0, 1].map((axis) => ({
      ...px,
      label: axis ? t('words.down') : t('words.across'),
      path: 'place/pivot',
      value: pivot.value[axis] ?? 0,
      values: (value) =>
        withPivot(
          props.layer.clip.value as PicturedClip,
          along(pivot.value, axis, value),
          props.layer.local.value,
        ),
    }))
  }
  const degrees = { step: 0.5, unit: '°', rest: 0, digits: 1 }
  const percent = {
    low: 1,
    high: 300,
    step: 1,
    unit: '%',
    rest: 100,
    digits: 0,
    path: 'place/size',
  }
  return [
    ...[0, 1].map((axis) => ({
      ...px,
      label: axis ? t('words.down') : t('words.across'),
      path: wayOf('place/position', axis),
      value: position.value[axis] ?? 0,
      values: (value: number) => ({ 'place/position': along(position.value, axis, value) }),
    })),
    {
      ...degrees,
      label: t('move.placePanel.turn'),
      path: 'place/turn',
      low: -180,
      high: 180,
      value: props.layer.now('place/turn', 0),
      values: (value: number) => ({ 'place/turn': value }),
    },
    ...(moving.evenSize ? [0] : [0, 1]).map((axis) => ({
      ...percent,
      label: moving.evenSize ? t('words.size') : axis ? t('words.height') : t('words.width'),
      value: (size.value[axis] ?? 1) * 100,
      values: (value: number) => grown(axis, value),
    })),
    {
      ...degrees,
      label: t('move.placePanel.lean'),
      path: 'place/lean',
      low: -60,
      high: 60,
      value: props.layer.now('place/lean', 0),
      values: (value: number) => ({ 'place/lean': value }),
    },
    {
      ...percent,
      label: t('words.opacity'),
      path: 'opacity',
      low: 0,
      high: 100,
      value: props.layer.now('opacity', 1) * 100,
      values: (value: number) => ({ opacity: value / 100 }),
    },
  ]
})
const REST: Record<string, unknown> = {
  'place/position': [0, 0],
  'place/size': [1, 1],
  'place/pivot': [0, 0],
  opacity: 1,
}

function key(row: Row) {
  moving.path = row.path
  props.layer.toggleKey(row.path, REST[row.path] ?? 0)
}
</script>

<template>
  <section class="panel place tray-group" :aria-label="$t('move.placePanel.place')">
    <TrayItem
      last
      :name="
        what === 'pivot' ? $t('move.placePanel.ofThePivot') : $t('move.placePanel.ofThePicture')
      "
    >
      <div class="head">
        <h2>{{ $t('move.placePanel.place') }}</h2>
        <ChoiceGroup
          :label="$t('move.placePanel.placeOf')"
          :choices="WHAT"
          :taken="what"
          @take="moving.pivoting = $event === 'pivot'"
        />
      </div>
    </TrayItem>
    <fieldset v-if="layer.clip.value" class="rows" :disabled="layer.locked.value">
      <ValueField
        v-for="row in rows"
        :key="`${what}${row.label}`"
        :label="row.label"
        :value="round(row.value, 2)"
        :low="row.low"
        :high="row.high"
        :step="row.step"
        :unit="row.unit"
        :digits="row.digits"
        :reset="row.rest"
        :keyed="layer.keyed(row.path)"
        :data-test="`place-${row.label.toLowerCase()}`"
        @trying="layer.trying(row.values($event))"
        @set="layer.set(row.values($event))"
        @key="key(row)"
      />
      <TrayItem :name="$t('move.placePanel.nudge')" last><NudgePad @nudge="nudge" /></TrayItem>
      <p v-if="what === 'pivot'" class="tiny quiet note">
        {{ $t('move.placePanel.dragTheCrossOnThe') }}
      </p>
      <TrayItem
        v-else
        :name="$t('move.placePanel.together')"
        :told="moving.evenSize ? $t('words.isOn') : $t('words.isOff')"
      >
        <label class="form-check form-switch even">
          <input
            v-model="moving.evenSize"
            type="checkbox"
            role="switch"
            class="form-check-input"
            data-test="even-size"
          />
          <span>{{ $t('move.placePanel.widthAndHeightTogether') }}</span>
        </label>
      </TrayItem>
    </fieldset>
    <p v-else class="quiet">{{ $t('move.placePanel.nothingInHandTapA') }}</p>
  </section>
</template>

<style scoped>
.place {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  gap: 4px;
  min-height: 0;
}
.head {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
h2 {
  font-size: 15px;
  margin: 0;
}
.rows {
  overflow-y: auto;
  scrollbar-width: thin;
  min-width: 0;
  padding-right: 6px;
}
.rows :deep(.field) {
  min-height: 34px;
}
.rows :deep(.keyable:not(.alone)) {
  grid-template-columns: 58px 1fr 74px 26px;
  gap: 6px;
}
.even {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: var(--touch);
  margin: 0;
}
.note {
  margin: 4px 0;
}
@media (pointer: coarse) {
  .rows :deep(.field) {
    min-height: var(--touch);
  }
}
.phone .place {
  padding: 0;
  background: none;
}
.phone .rows {
  overflow: hidden;
  padding: 0;
}
</style>
