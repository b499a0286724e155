<script setup lang="ts">
/** The keys of one property as a graph, what can be done with those in hand, and their pace. */
import { computed, watch } from 'vue'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import { axesOf } from './graph'
import { isKeyed } from '@/motion/keys'
import { nameOf } from '@/motion/names'
import { keyedProps } from '@/motion/props'
import type { Layer } from '@/inhand/useLayer'
import { useMoving } from '@/stores/moving'
import EaseTiles from './EaseTiles.vue'
import KeyGraph from './KeyGraph.vue'
import KeyVerbs from './KeyVerbs.vue'
import { useKeys } from '@/inhand/useKeys'

const props = defineProps<{ layer: Layer }>()
const moving = useMoving()
const keys = useKeys()

const PLACES = ['place/position', 'place/turn', 'place/size', 'place/lean', 'opacity']
const clip = computed(() => props.layer.clip.value)
const keyed = computed(() => keyedProps(clip.value).map(({ path }) => path))
const paths = computed(() => [...new Set([...keyed.value, ...PLACES])])
const path = computed(() =>
  paths.value.includes(moving.path) ? moving.path : (paths.value[0] ?? 'place/position'),
)
// Another layer shows what moves there.
watch(
  () => clip.value?.id,
  () => {
    const first = keyed.value[0]
    if (first && !keyed.value.includes(moving.path)) moving.path = first
  },
  { immediate: true },
)
const prop = computed(() => props.layer.prop(path.value))
const hasKeys = computed(() => isKeyed(prop.value))
const axes = computed(() =>
  isKeyed(prop.value) ? axesOf(prop.value.keys[0]?.value).map((name, id) => ({ id, name })) : [],
)
const UNITS: Record<string, { unit: string; step: number }> = {
  'place/position': { unit: 'px', step: 1 },
  'place/pivot': { unit: 'px', step: 1 },
  'place/turn': { unit: '°', step: 0.5 },
  'place/lean': { unit: '°', step: 0.5 },
}
const unit = computed(() => UNITS[path.value] ?? { unit: '', step: 0.01 })
const VIEWS = [
  { id: 'value', name: 'Value', help: 'Value over time', test: 'graph-value' },
  { id: 'speed', name: 'Speed', help: 'Speed over time', test: 'graph-speed' },
] as const

function takeAll() {
  if (!isKeyed(prop.value)) return
  const id = clip.value?.id ?? ''
  moving.takeAll(prop.value.keys.map((key) => ({ clip: id, path: path.value, at: key.at })))
}
</script>

<template>
  <fieldset class="keys" :disabled="layer.locked.value">
    <div class="line">
      <select
        class="form-select form-select-sm"
        aria-label="Property"
        :value="path"
        data-test="graph-property"
        @change="moving.path = ($event.target as HTMLSelectElement).value"
      >
        <option v-for="one in paths" :key="one" :value="one">
          {{ nameOf(clip, one) }}{{ keyed.includes(one) ? ' ◆' : '' }}
        </option>
      </select>
      <ChoiceGroup
        v-if="axes.length > 1"
        label="Axis"
        :choices="axes"
        :taken="Math.min(moving.axis, axes.length - 1)"
        @take="moving.axis = $event"
      />
      <span class="grow" />
      <ChoiceGroup
        v-if="axes.length"
        label="Graph"
        :choices="VIEWS"
        :taken="moving.view"
        @take="moving.view = $event"
      />
    </div>
    <div v-if="hasKeys" class="room">
      <KeyGraph :layer="layer" :path="path" :step="unit.step" :unit="unit.unit" />
    </div>
    <div v-else class="room none">
      <strong>{{ nameOf(clip, path) }} stands still</strong>
      <span class="tiny quiet">
        Set a key here, move the playhead, and change the layer: each change sets the next key.
      </span>
      <button
        class="btn btn-secondary"
        data-test="first-key"
        @click="layer.toggleKey(path, path === 'opacity' ? 1 : [0, 0])"
      >
        Set the first key
      </button>
    </div>
    <KeyVerbs :has-keys="hasKeys" @all="takeAll" />
    <EaseTiles :keys="keys" />
  </fieldset>
</template>

<style scoped>
.keys {
  display: grid;
  gap: 6px;
  min-width: 0;
  grid-template-rows: auto minmax(126px, 1fr) auto auto;
  min-height: 100%;
}
.line {
  display: flex;
  align-items: center;
  gap: 4px;
  min-width: 0;
}
.form-select {
  width: auto;
  min-width: 0;
  max-width: 190px;
  min-height: calc(var(--touch) - 6px);
}
.line :deep(.choices) {
  flex-wrap: nowrap;
}
.line :deep(.choices button) {
  padding: 4px 9px;
}
.grow {
  flex: 1;
}
.room {
  min-height: 126px;
  min-width: 0;
  position: relative;
}
.room > :deep(svg) {
  position: absolute;
  inset: 0;
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
@media (max-width: 759px) {
  .keys {
    grid-template-rows: auto 190px auto auto;
  }
}
</style>
