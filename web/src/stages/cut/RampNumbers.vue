<script setup lang="ts">
/** The point of a ramp in hand by numbers: its speed, its moment, and where the source is then. */
import { TICKS_PER_SECOND } from '@/api/types'
import NumberBox from '@/controls/NumberBox.vue'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import { t } from '@/texts'
import { isSoft, type Point } from '@/motion/speed'
import type { Keep } from './pace'
import { FASTEST } from './knots'
import type { RampPoints } from './useRampPoints'
import type { RampView } from './useRampScale'

const props = defineProps<{ ramp: RampPoints; view: RampView; locked: boolean }>()
const emit = defineEmits<{ set: [points: Point[], keep?: Keep] }>()
const { soft, points, chosen, point, knot, canRemove } = props.ramp
const { withPoint, withSource, withSlope, withPace } = props.ramp
/** How the speed changes from it to the next point. */
const PACES = [
  { id: 'soft', name: t('cut.rampGraph.soft'), test: 'ramp-pace-soft' },
  { id: 'straight', name: t('cut.rampGraph.straight'), test: 'ramp-pace-straight' },
] as const

const seconds = (ticks: number) => ticks / TICKS_PER_SECOND
const ticks = (given: number) => Math.round(given * TICKS_PER_SECOND)

function setSpeed(given: number) {
  const speed = Math.min(FASTEST, Math.max(-FASTEST, given))
  const stays = props.view === 'source' && knot.value
  emit('set', stays ? withSlope(chosen.value, speed) : withPoint(chosen.value, { speed }))
}
function setMoment(given: number) {
  const at = ticks(given)
  const { source } = knot.value ?? { source: 0 }
  const moved = props.view === 'source' ? withSource(chosen.value, { at, source }) : null
  emit('set', moved ?? withPoint(chosen.value, { at }))
}
/** Another part of the source at the same moment: the length stays. */
function setSource(given: number) {
  const at = point.value?.at ?? 0
  emit('set', withSource(chosen.value, { at, source: ticks(given) }), 'length')
}
</script>

<template>
  <div v-if="point" class="line" data-test="ramp-numbers">
    <NumberBox
      :label="$t('cut.rampGraph.speed')"
      :value="point.speed"
      unit="×"
      :disabled="locked"
      data-test="ramp-speed"
      @set="setSpeed"
    />
    <NumberBox
      :label="$t('cut.rampNumbers.moment')"
      :value="seconds(point.at)"
      unit="s"
      :disabled="locked || !canRemove || point.bends"
      data-test="ramp-moment"
      @set="setMoment"
    />
    <NumberBox
      v-if="knot"
      :label="$t('cut.rampNumbers.source')"
      :value="seconds(knot.source)"
      unit="s"
      :disabled="locked || !chosen"
      data-test="ramp-source"
      @set="setSource"
    />
    <ChoiceGroup
      v-if="chosen < points.length - 1"
      :label="$t('cut.rampNumbers.toTheNext')"
      :choices="PACES"
      :taken="isSoft(point, soft) ? 'soft' : 'straight'"
      @take="emit('set', withPace(chosen, $event === 'soft'))"
    />
  </div>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
}
</style>
