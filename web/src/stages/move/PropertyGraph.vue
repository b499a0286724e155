<script setup lang="ts">
/** The graph of one property, or what to do so that it gets one. */
import { computed, onMounted, shallowRef } from 'vue'
import IconSpeed from '~icons/tabler/gauge'
import TimeZoom from '@/controls/TimeZoom.vue'
import type { TimeWindow } from '@/controls/useTimeWindow'
import { usePhone } from '@/look/phone'
import { isKeyed } from '@/motion/keys'
import { nameOf } from '@/motion/names'
import { wholeOf } from '@/motion/props'
import type { Properties } from '@/inhand/useProperties'
import { useMoving } from '@/stores/moving'
import { axesOf } from './graph'
import KeyGraph from './KeyGraph.vue'

const props = defineProps<{ layer: Properties; path: string }>()
const emit = defineEmits<{ shown: [] }>()
const moving = useMoving()
const { phone } = usePhone()

const UNITS: Record<string, { unit: string; step: number }> = {
  'place/position': { unit: 'px', step: 1 },
  'place/pivot': { unit: 'px', step: 1 },
  'place/turn': { unit: '°', step: 0.5 },
  'place/lean': { unit: '°', step: 0.5 },
  gain: { unit: 'dB', step: 0.5 },
}
/** What a property is before anything was set. */
const FIRST: Record<string, number> = { opacity: 1, gain: 0, 'place/turn': 0, 'place/lean': 0 }
const unit = computed(() => UNITS[wholeOf(props.path)] ?? { unit: '', step: 0.01 })
const oneWay = computed(() => wholeOf(props.path) !== props.path)
const prop = computed(() => props.layer.prop(props.path))
const axes = computed(() => (isKeyed(prop.value) ? axesOf(prop.value.keys[0]?.value) : []))
const axis = computed(() => Math.min(moving.axis, axes.value.length - 1))
const graph = shallowRef<{ closeUp: TimeWindow; around: number } | null>(null)
onMounted(() => emit('shown'))
</script>

<template>
  <div v-if="isKeyed(prop)" class="room">
    <KeyGraph ref="graph" :layer="layer" :path="path" :step="unit.step" :unit="unit.unit" />
    <TimeZoom v-if="graph" class="zoom" :time="graph.closeUp" :around="graph.around" />
    <div v-if="phone" class="corner">
      <button
        v-if="axes.length > 1"
        class="btn btn-bare"
        :title="$t('move.propertyGraph.shown', { what: axes[axis] })"
        data-test="graph-axis"
        @click="moving.axis = (axis + 1) % axes.length"
      >
        {{ axes[axis] }}
      </button>
      <button
        v-if="axes.length"
        class="btn btn-bare"
        :aria-label="$t('move.propertyGraph.speedOverTime')"
        :aria-pressed="moving.view === 'speed'"
        data-test="graph-view"
        @click="moving.view = moving.view === 'speed' ? 'value' : 'speed'"
      >
        <IconSpeed aria-hidden="true" />
      </button>
    </div>
  </div>
  <div v-else class="room none">
    <strong>{{
      $t('move.propertyGraph.standsStill', { name: nameOf(layer.clip.value, path) })
    }}</strong>
    <span class="tiny quiet">
      {{ $t('move.propertyGraph.setAKeyHereMove') }}
    </span>
    <button
      class="btn btn-secondary"
      data-test="first-key"
      @click="layer.toggleKey(path, FIRST[path] ?? (oneWay ? 0 : [0, 0]))"
    >
      {{ $t('move.propertyGraph.setTheFirstKey') }}
    </button>
  </div>
</template>

<style scoped>
.room {
  min-height: 126px;
  min-width: 0;
  position: relative;
}
.room > :deep(svg) {
  position: absolute;
  inset: 0;
}
.zoom {
  position: absolute;
  top: 0;
  left: 48px;
}
.none {
  display: grid;
  place-content: center;
  justify-items: center;
  gap: 8px;
  text-align: center;
  background: var(--rail);
  border-radius: var(--fold);
  padding: 8px 16px;
}
.phone .room {
  min-height: 0;
  flex: 1;
}
.phone .none {
  gap: 2px;
  padding: 2px 12px;
}
.phone .room:has(.corner) {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
}
.phone .room:has(.corner) > :deep(svg) {
  position: static;
}
.corner {
  display: flex;
  flex-direction: column;
}
.corner .btn {
  font-size: 13px;
  padding: 0 4px;
}
.corner [aria-pressed='true'] {
  color: var(--accent);
}
</style>
