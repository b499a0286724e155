<script setup lang="ts">
/** How the clip in hand sounds; gain, pan and pitch at the playhead, which may have keys. */
import { computed } from 'vue'
import { isSounding, TICKS_PER_SECOND } from '@/api/types'
import ChoiceRow from '@/controls/ChoiceRow.vue'
import ValueField from '@/controls/ValueField.vue'
import SwitchField from '@/controls/SwitchField.vue'
import { useProperties } from '@/inhand/useProperties'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import { frameTicks } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'

const project = useProject()
const sound = useProperties(isSounding)
const clip = computed(() => sound.clip.value)

const seconds = (ticks: number) => ticks / TICKS_PER_SECOND
const bounded = (low: number, value: number, high: number) => Math.min(high, Math.max(low, value))

/** Values that may have keys; shown as `factor` times what is kept. */
const VALUES = [
  {
    path: 'gain',
    label: t('controls.soundFields.gain'),
    help: t('controls.soundFields.atThePlayheadWithKeys'),
    ...{ low: -60, high: 12, most: 24, step: 0.5, digits: 1, unit: 'dB', factor: 1 },
  },
  {
    path: 'pan',
    label: t('controls.soundFields.pan'),
    help: t('controls.soundFields.fromLeftToRight'),
    ...{ low: -100, high: 100, most: 100, step: 1, digits: 0, unit: '%', factor: 100 },
  },
  {
    path: 'pitch',
    label: t('controls.soundFields.pitch'),
    help: t('controls.soundFields.inSemitones'),
    ...{ low: -12, high: 12, most: 24, step: 1, digits: 2, unit: 'st', factor: 1 },
  },
] as const
type Value = (typeof VALUES)[number]

function set({ path, most, factor, low }: Value, value: number) {
  sound.set({ [path]: bounded(Math.min(low, -most), value, most) / factor })
}

const FADES = [
  { path: 'fade_in', shape: 'fade_in_shape', label: t('controls.soundFields.fadeIn') },
  { path: 'fade_out', shape: 'fade_out_shape', label: t('controls.soundFields.fadeOut') },
] as const
const SHAPES = [
  { id: 'smooth', name: t('controls.soundFields.smooth') },
  { id: 'straight', name: t('controls.soundFields.straight') },
  { id: 'early', name: t('controls.soundFields.early') },
  { id: 'late', name: t('controls.soundFields.late') },
] as const
const SIDES = [
  { id: 'both', name: t('controls.soundFields.both') },
  { id: 'left', name: t('controls.soundFields.left') },
  { id: 'right', name: t('controls.soundFields.right') },
  { id: 'swapped', name: t('controls.soundFields.swapped') },
  { id: 'mono', name: t('controls.soundFields.mono') },
] as const

function fade(path: (typeof FADES)[number]['path'], value: number) {
  const step = frameTicks(project.rate)
  const ticks = Math.round((Math.max(0, value) * TICKS_PER_SECOND) / step) * step
  sound.setWhole({ [path]: Math.min(ticks, clip.value?.length ?? 0) })
}
</script>

<template>
  <fieldset v-if="clip" :disabled="sound.locked.value">
    <TrayItem
      :name="$t('controls.soundFields.heard')"
      :told="clip.muted ? $t('controls.soundFields.no') : $t('controls.soundFields.yes')"
    >
      <SwitchField :on="!clip.muted" @update:on="sound.setWhole({ muted: !$event })">
        {{ $t('controls.soundFields.heard') }}
      </SwitchField>
    </TrayItem>
    <ValueField
      v-for="one in VALUES"
      :key="one.path"
      :label="one.label"
      :help="one.help"
      :value="sound.now(one.path, 0) * one.factor"
      :low="one.low"
      :high="one.high"
      :step="one.step"
      :digits="one.digits"
      :unit="one.unit"
      signed
      :reset="0"
      :keyed="sound.keyed(one.path)"
      @set="set(one, $event)"
      @key="sound.toggleKey(one.path, 0)"
    />
    <template v-for="one in FADES" :key="one.path">
      <ValueField
        :label="one.label"
        :value="seconds(clip[one.path] ?? 0)"
        :low="0"
        :high="Math.min(5, seconds(clip.length))"
        :step="0.1"
        :digits="2"
        unit="s"
        :reset="0"
        @set="fade(one.path, $event)"
      />
      <ChoiceRow
        v-if="clip[one.path]"
        :name="$t('controls.soundFields.shape', { fade: one.label })"
        :choices="SHAPES"
        :taken="clip[one.shape] ?? 'smooth'"
        @take="sound.setWhole({ [one.shape]: $event })"
      />
    </template>
    <ChoiceRow
      :name="$t('controls.soundFields.sides')"
      :help="$t('controls.soundFields.whichSides')"
      :choices="SIDES"
      :taken="clip.channels ?? 'both'"
      @take="sound.setWhole({ channels: $event })"
    />
    <slot />
  </fieldset>
</template>
