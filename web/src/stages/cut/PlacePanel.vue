<script setup lang="ts">
/** Where the picture of the clip in hand is at the playhead; what has keys gets one. */
import { computed } from 'vue'
import type { PicturedClip } from '@/api/types'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import NudgePad from '@/controls/NudgePad.vue'
import ValueField from '@/controls/ValueField.vue'
import { useLayer } from '@/inhand/useLayer'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'

defineProps<{ clip: PicturedClip; locked: boolean }>()
const project = useProject()
const layer = useLayer()
const canvas = computed(() => project.document?.canvas ?? { width: 1080, height: 1920 })

type Pair = [number, number]
const position = computed(() => layer.now<Pair>('place/position', [0, 0]))
const size = computed(() => layer.now<Pair>('place/size', [1, 1]))

function sized(percent: number): Record<string, unknown> {
  const [across, down] = size.value
  const factor = percent / 100 / (across || 1)
  return { 'place/size': [percent / 100, down * factor] }
}

function nudge(by: Record<'x' | 'y', number>) {
  const [x, y] = position.value
  layer.set({ 'place/position': [x + by.x, y + by.y] })
}

const FITS = [
  { id: 'whole', name: t('cut.placePanel.whole') },
  { id: 'fill', name: t('cut.placePanel.fill') },
  { id: 'own', name: t('cut.placePanel.ownPixels') },
] as const

const rows = computed(() => {
  const { width, height } = canvas.value
  const [x, y] = position.value
  const px = { path: 'place/position', step: 1, unit: 'px', reset: 0, digits: 0 }
  const percent = { step: 1, unit: '%', reset: 100, digits: 0 }
  return [
    {
      ...px,
      label: t('words.across'),
      value: x,
      low: -width,
      high: width,
      put: (v: number) => at(v, y),
    },
    {
      ...px,
      label: t('words.down'),
      value: y,
      low: -height,
      high: height,
      put: (v: number) => at(x, v),
    },
    {
      ...percent,
      label: t('words.size'),
      path: 'place/size',
      value: size.value[0] * 100,
      low: 5,
      high: 300,
      put: sized,
    },
    {
      label: t('cut.placePanel.turn'),
      path: 'place/turn',
      value: layer.now('place/turn', 0),
      low: -180,
      high: 180,
      step: 0.5,
      digits: 1,
      unit: '°',
      reset: 0,
      put: (v: number) => ({ 'place/turn': v }),
    },
    {
      ...percent,
      label: t('words.opacity'),
      path: 'opacity',
      value: layer.now('opacity', 1) * 100,
      low: 0,
      high: 100,
      put: (v: number) => ({ opacity: Math.min(1, Math.max(0, v / 100)) }),
    },
  ]
})
const at = (x: number, y: number) => ({ 'place/position': [x, y] })
</script>

<template>
  <fieldset :disabled="locked">
    <TrayItem :name="$t('cut.placePanel.fit')" :told="clip.place.fit">
      <ChoiceGroup
        :label="$t('cut.placePanel.fit')"
        :choices="FITS"
        :taken="clip.place.fit"
        @take="layer.setWhole({ 'place/fit': $event })"
      />
    </TrayItem>
    <ValueField
      v-for="row in rows"
      :key="row.label"
      :label="row.label"
      :value="Number(row.value.toFixed(2))"
      :low="row.low"
      :high="row.high"
      :step="row.step"
      :digits="row.digits"
      :unit="row.unit"
      :reset="row.reset"
      :keyed="layer.keyed(row.path)"
      @trying="layer.trying(row.put($event))"
      @set="layer.set(row.put($event))"
      @key="layer.toggleKey(row.path, 0)"
    />
    <TrayItem :name="$t('cut.placePanel.nudge')" last><NudgePad @nudge="nudge" /></TrayItem>
  </fieldset>
</template>
