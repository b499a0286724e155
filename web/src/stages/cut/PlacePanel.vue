<script setup lang="ts">
/** Where the picture of the clip in hand is. */
import { computed } from 'vue'
import type { PicturedClip } from '@/api/types'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import ValueField from '@/controls/ValueField.vue'
import { useProject } from '@/stores/project'
import { KEYED, plain, useAdjust } from './useAdjust'

const props = defineProps<{ clip: PicturedClip; locked: boolean }>()
const project = useProject()
const { set, trying } = useAdjust(() => props.clip.id ?? '')
const canvas = computed(() => project.document?.canvas ?? { width: 1080, height: 1920 })

const position = computed(() => {
  const value = props.clip.place.position
  return Array.isArray(value) ? value : null
})
const size = computed(() => {
  const value = props.clip.place.size
  return Array.isArray(value) ? value : null
})

function sized(percent: number): Record<string, unknown> {
  const [across, down] = size.value ?? [1, 1]
  const factor = percent / 100 / (across || 1)
  return { 'place/size': [percent / 100, down * factor] }
}

const FITS = [
  { id: 'whole', name: 'Whole' },
  { id: 'fill', name: 'Fill' },
  { id: 'own', name: 'Own pixels' },
] as const
</script>

<template>
  <fieldset :disabled="locked">
    <ChoiceGroup
      label="Fit"
      :choices="FITS"
      :taken="clip.place.fit"
      @take="set({ 'place/fit': $event })"
    />
    <ValueField
      label="Across"
      :value="position?.[0] ?? 0"
      :low="-canvas.width"
      :high="canvas.width"
      :step="1"
      unit="px"
      :reset="0"
      :note="position ? '' : KEYED"
      @trying="trying({ 'place/position': [$event, position?.[1] ?? 0] })"
      @set="set({ 'place/position': [$event, position?.[1] ?? 0] })"
    />
    <ValueField
      label="Down"
      :value="position?.[1] ?? 0"
      :low="-canvas.height"
      :high="canvas.height"
      :step="1"
      unit="px"
      :reset="0"
      :note="position ? '' : KEYED"
      @trying="trying({ 'place/position': [position?.[0] ?? 0, $event] })"
      @set="set({ 'place/position': [position?.[0] ?? 0, $event] })"
    />
    <ValueField
      label="Size"
      :value="(size?.[0] ?? 1) * 100"
      :low="5"
      :high="300"
      :step="1"
      unit="%"
      :reset="100"
      :note="size ? '' : KEYED"
      @trying="trying(sized($event))"
      @set="set(sized($event))"
    />
    <ValueField
      label="Turn"
      :value="plain(clip.place.turn) ?? 0"
      :low="-180"
      :high="180"
      :step="0.5"
      :digits="1"
      unit="°"
      :reset="0"
      :note="plain(clip.place.turn) === null ? KEYED : ''"
      @trying="trying({ 'place/turn': $event })"
      @set="set({ 'place/turn': $event })"
    />
    <ValueField
      label="Opacity"
      :value="(plain(clip.opacity) ?? 1) * 100"
      :low="0"
      :high="100"
      :step="1"
      unit="%"
      :reset="100"
      :note="plain(clip.opacity) === null ? KEYED : ''"
      @trying="trying({ opacity: $event / 100 })"
      @set="set({ opacity: Math.min(1, Math.max(0, $event / 100)) })"
    />
  </fieldset>
</template>
