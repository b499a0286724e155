<script setup lang="ts">
/** Ready-made motions: how the layer comes in, goes out, and what it does meanwhile. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import { TICKS_PER_SECOND, type PicturedClip } from '@/api/types'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import ControlFields from '@/controls/ControlFields.vue'
import ValueField from '@/controls/ValueField.vue'
import type { Layer } from '@/inhand/useLayer'
import { useKit } from '@/stores/kit'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import { frameTicks } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'
import KitMotions from './KitMotions.vue'

const props = defineProps<{ layer: Layer }>()
const kit = useKit()
const project = useProject()

type Moves = NonNullable<PicturedClip['moves']>
type Entrance = NonNullable<Moves['comes']>
type Way = 'comes' | 'goes'
const clip = computed(() => props.layer.clip.value)
const moves = computed<Moves>(() => clip.value?.moves ?? ({} as Moves))

const WAYS: { id: Way; name: string }[] = [
  { id: 'comes', name: t('move.readyPart.comesIn') },
  { id: 'goes', name: t('move.readyPart.goesOut') },
]
const MEANWHILE: Record<string, { rate: number; strength: number; help: string }> = {
  sway: { rate: 0.5, strength: 1, help: t('move.readyPart.turnsToAndFroAbout') },
  float: { rate: 0.4, strength: 1, help: t('move.readyPart.goesUpAndDown') },
  pulse: { rate: 1, strength: 1, help: t('move.readyPart.swellsAndShrinks') },
  flicker: { rate: 8, strength: 0.6, help: t('move.readyPart.itsOpacityIsUnsteady') },
}
const UNITS: Record<string, string> = {
  whole: t('move.readyPart.asAWhole'),
  letter: t('move.readyPart.letterByLetter'),
  word: t('move.readyPart.wordByWord'),
  line: t('move.readyPart.lineByLine'),
}
const kinds = computed(() => [
  { id: '', name: t('words.none'), test: '' },
  ...(kit.move?.entrances ?? []).map((id) => ({ id, name: title(id), test: '' })),
])
const title = (word: string) => word.charAt(0).toUpperCase() + word.slice(1)
const named = (way: Way) =>
  kinds.value.map((one) => ({ ...one, test: `${way}-${one.id || 'none'}` }))

const seconds = (ticks: number) => ticks / TICKS_PER_SECOND
function ticks(value: number): number {
  const frame = frameTicks(project.rate)
  return Math.max(1, Math.round((value * TICKS_PER_SECOND) / frame)) * frame
}

function choose(way: Way, kind: string) {
  const before = moves.value[way]
  const length = before?.length ?? ticks(0.6)
  const value = kind ? { ...before, kind, length, ease: null } : null
  props.layer.setWhole({ [`moves/${way}`]: value })
}

const change = (way: Way, values: Partial<Entrance>) => ({
  [`moves/${way}`]: { ...moves.value[way], ...values },
})

/** Of an entrance, what there is to set: its side matters to some kinds, its lag to letters. */
function controls(one: Entrance) {
  const sided = one.kind === 'slide' || one.kind === 'unfold'
  return (kit.move?.entrance ?? []).filter(({ name }) => {
    if (name === 'side') return sided
    if (name === 'later') return clip.value?.kind === 'text' && one.unit !== 'whole'
    return !(name === 'strength' && (one.kind === 'fade' || one.kind === 'pop'))
  })
}

const going = computed(() => moves.value.meanwhile ?? [])
function toggle(kind: string) {
  const there = going.value.some((one) => one.kind === kind)
  const rest = MEANWHILE[kind]
  const fresh = { kind, rate: rest?.rate, strength: rest?.strength }
  const meanwhile = there ? going.value.filter((one) => one.kind !== kind) : [...going.value, fresh]
  props.layer.setWhole({ 'moves/meanwhile': meanwhile })
}
const inside = (id: string, values: Record<string, unknown>) =>
  Object.fromEntries(
    Object.entries(values).map(([name, value]) => [`moves/meanwhile/${id}/${name}`, value]),
  )

/** Shaking is an effect: what comes into view at the edges is filled. */
const shake = computed(() => (clip.value?.effects ?? []).find((one) => one.kind === 'shake'))
const shakeKind = computed(() => kit.layer?.effects.find((one) => one.kind === 'shake'))
function toggleShake() {
  if (shake.value) props.layer.removePart('effects', shake.value.id ?? '')
  else props.layer.addParts('effects', [{ kind: 'shake' }])
}

const toKeys = (which: Way | 'meanwhile') =>
  props.layer.send({ kind: 'moves_to_keys', clips: props.layer.ids.value, which })
</script>

<template>
  <fieldset v-if="clip" class="ready" :disabled="layer.locked.value">
    <section v-for="way in WAYS" :key="way.id" class="tray-group" :aria-label="way.name">
      <TrayItem
        :name="way.name"
        :told="moves[way.id] ? title(moves[way.id]?.kind ?? '') : $t('words.no')"
      >
        <div class="head">
          <strong>{{ way.name }}</strong>
          <BButton
            v-if="moves[way.id]"
            size="sm"
            variant="secondary"
            :title="$t('move.readyPart.itBecomesOrdinaryKeysThat')"
            :data-test="`${way.id}-to-keys`"
            @click="toKeys(way.id)"
          >
            {{ $t('move.readyPart.toKeys') }}
          </BButton>
        </div>
        <ChoiceGroup
          :label="way.name"
          :choices="named(way.id)"
          :taken="moves[way.id]?.kind ?? ''"
          @take="choose(way.id, $event)"
        />
      </TrayItem>
      <template v-if="moves[way.id]">
        <TrayItem v-if="clip.kind === 'text'" :name="$t('move.readyPart.by')">
          <ChoiceGroup
            :label="$t('move.readyPart.by')"
            :choices="
              Object.entries(UNITS).map(([id, unit]) => ({
                id,
                name: unit,
                test: `${way.id}-by-${id}`,
              }))
            "
            :taken="moves[way.id]?.unit ?? 'whole'"
            @take="layer.setWhole(change(way.id, { unit: $event as never }))"
          />
        </TrayItem>
        <ValueField
          :label="$t('move.readyPart.length')"
          :value="seconds(moves[way.id]?.length ?? 0)"
          :low="0.1"
          :high="Math.max(1, Math.min(4, seconds(clip.length)))"
          :step="0.05"
          :digits="2"
          unit="s"
          @trying="layer.tryWhole(change(way.id, { length: ticks($event) }))"
          @set="layer.setWhole(change(way.id, { length: ticks($event) }))"
        />
        <ControlFields
          :controls="controls(moves[way.id] as Entrance)"
          :values="moves[way.id] as unknown as Record<string, unknown>"
          :local="layer.local.value"
          @trying="layer.tryWhole(change(way.id, $event))"
          @set="layer.setWhole(change(way.id, $event))"
        />
      </template>
    </section>
    <section :aria-label="$t('move.readyPart.meanwhile')" class="tray-group">
      <TrayItem
        :name="$t('move.readyPart.meanwhile')"
        :told="going.length ? String(going.length) : ''"
      >
        <div class="head">
          <strong>{{ $t('move.readyPart.meanwhile') }}</strong>
          <BButton
            v-if="going.length"
            size="sm"
            variant="secondary"
            :title="$t('move.readyPart.itBecomesOrdinaryKeysThat')"
            data-test="meanwhile-to-keys"
            @click="toKeys('meanwhile')"
          >
            {{ $t('move.readyPart.toKeys') }}
          </BButton>
        </div>
        <div class="several" role="group" :aria-label="$t('move.readyPart.meanwhile')">
          <button
            v-for="kind in kit.move?.meanwhiles ?? []"
            :key="kind"
            type="button"
            class="btn btn-secondary"
            :aria-pressed="going.some((one) => one.kind === kind)"
            :title="MEANWHILE[kind]?.help"
            :data-test="`meanwhile-${kind}`"
            @click="toggle(kind)"
          >
            {{ title(kind) }}
          </button>
          <button
            type="button"
            class="btn btn-secondary"
            :aria-pressed="Boolean(shake)"
            :title="$t('move.readyPart.asHeldByAnUnsteady')"
            data-test="meanwhile-shake"
            @click="toggleShake"
          >
            {{ $t('move.readyPart.shake') }}
          </button>
        </div>
      </TrayItem>
      <template v-if="shake">
        <div class="tiny quiet">{{ $t('move.readyPart.shake') }}</div>
        <ControlFields
          :controls="shakeKind?.controls ?? []"
          :values="shake as unknown as Record<string, unknown>"
          :local="layer.local.value"
          @trying="layer.tryPart('effects', shake.id ?? '', $event)"
          @set="layer.setPart('effects', shake.id ?? '', $event)"
        />
      </template>
      <template v-for="one in going" :key="one.id">
        <div class="tiny quiet">{{ title(one.kind ?? '') }}</div>
        <ControlFields
          :controls="kit.move?.meanwhile ?? []"
          :values="one as unknown as Record<string, unknown>"
          :local="layer.local.value"
          @trying="layer.tryWhole(inside(one.id ?? '', $event))"
          @set="layer.setWhole(inside(one.id ?? '', $event))"
        />
      </template>
    </section>
    <TrayItem :name="$t('words.kit')"><KitMotions :layer="layer" /></TrayItem>
  </fieldset>
</template>

<style scoped>
.ready,
section {
  display: grid;
  gap: 6px;
  min-width: 0;
}
.ready {
  gap: 14px;
}
.head {
  display: flex;
  align-items: center;
  justify-content: space-between;
  min-height: 32px;
}
.several {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.several .btn[aria-pressed='true'] {
  background: #453c4e;
  border-color: var(--accent);
}
p {
  margin: 0;
}
</style>
