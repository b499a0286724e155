<script setup lang="ts">
/** The keys of one property as a graph, what can be done with those in hand, and their pace. */
import { computed, watch } from 'vue'
import { isPictured, isSounding } from '@/api/types'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import { usePhone } from '@/look/phone'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import { axesOf } from './graph'
import { isAxes, isKeyed } from '@/motion/keys'
import { nameOf } from '@/motion/names'
import { AXES, keyedProps, wholeOf } from '@/motion/props'
import type { Properties } from '@/inhand/useProperties'
import { useMoving } from '@/stores/moving'
import EaseTiles from './EaseTiles.vue'
import KeyVerbs from './KeyVerbs.vue'
import PropertyGraph from './PropertyGraph.vue'
import { useKeys } from '@/inhand/useKeys'

const props = defineProps<{ layer: Properties }>()
const moving = useMoving()
const { phone } = usePhone()
const keys = useKeys()

const PLACES = ['place/position', 'place/turn', 'place/size', 'place/lean', 'opacity']
const clip = computed(() => props.layer.clip.value)
/** A property, or its two ways where they move apart. */
const waysOf = (path: string) =>
  isAxes(props.layer.prop(path)) ? AXES.map((way) => `${path}/${way}`) : [path]
const keyed = computed(() => keyedProps(clip.value).map(({ path }) => path))
const paths = computed(() => {
  const one = clip.value
  const seen = one && isPictured(one) ? PLACES.flatMap(waysOf) : []
  const heard = one && isSounding(one) ? ['gain'] : []
  return [...new Set([...keyed.value, ...seen, ...heard])]
})
/** Those that stand still. */
const still = computed(() => paths.value.filter((one) => !keyed.value.includes(one)))
const path = computed(() => {
  const [one, other] = waysOf(moving.path)
  const asked = (moving.axis && other) || one || ''
  return paths.value.includes(asked) ? asked : (paths.value[0] ?? '')
})
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
const VIEWS = [
  {
    id: 'value',
    name: t('move.keysPart.value'),
    help: t('move.keysPart.valueOverTime'),
    test: 'graph-value',
  },
  {
    id: 'speed',
    name: t('move.keysPart.speed'),
    help: t('move.keysPart.speedOverTime'),
    test: 'graph-speed',
  },
] as const

/** Of a point that moves: whether its two numbers do so together or apart. */
const ways = computed(() => {
  const whole = wholeOf(path.value)
  if (whole !== path.value) return 'apart'
  return axes.value.length === 2 ? 'together' : null
})

async function parted(kind: 'part_axes' | 'join_axes') {
  const whole = wholeOf(path.value)
  const done = await props.layer.send({ kind, clip: clip.value?.id ?? '', path: whole })
  if (done) moving.path = kind === 'join_axes' ? whole : `${whole}/${AXES[moving.axis] ?? 'across'}`
}

function takeAll() {
  if (!isKeyed(prop.value)) return
  const id = clip.value?.id ?? ''
  moving.takeAll(prop.value.keys.map((key) => ({ clip: id, path: path.value, at: key.at })))
}
</script>

<template>
  <fieldset class="keys" :disabled="layer.locked.value">
    <template v-if="phone">
      <TrayItem
        v-for="one in keyed"
        :key="one"
        v-slot="{ alone }"
        :name="nameOf(clip, one)"
        :keyed="keyed.includes(one)"
      >
        <PropertyGraph v-if="alone" :layer="layer" :path="one" @shown="moving.path = one" />
      </TrayItem>
    </template>
    <template v-else>
      <div class="line">
        <select
          class="form-select form-select-sm"
          :aria-label="$t('move.keysPart.property')"
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
          :label="$t('move.keysPart.axis')"
          :choices="axes"
          :taken="Math.min(moving.axis, axes.length - 1)"
          @take="moving.axis = $event"
        />
        <span class="grow" />
        <ChoiceGroup
          v-if="axes.length"
          :label="$t('move.keysPart.graph')"
          :choices="VIEWS"
          :taken="moving.view"
          @take="moving.view = $event"
        />
      </div>
      <PropertyGraph :layer="layer" :path="path" />
    </template>
    <TrayItem :name="$t('move.keysPart.easing')" :last="!keyed.length"
      ><EaseTiles :keys="keys" :has-keys="hasKeys" @all="takeAll"
    /></TrayItem>
    <TrayItem
      :name="$t('move.keysPart.keysInHand')"
      :last="!keyed.length"
      :told="String(moving.keys.length || '')"
    >
      <KeyVerbs :has-keys="hasKeys" :ways="ways" @all="takeAll" @ways="parted" />
    </TrayItem>
    <template v-if="phone">
      <TrayItem
        v-for="one in still"
        :key="one"
        v-slot="{ alone }"
        :name="nameOf(clip, one)"
        :keyed="keyed.includes(one)"
      >
        <PropertyGraph v-if="alone" :layer="layer" :path="one" @shown="moving.path = one" />
      </TrayItem>
    </template>
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
  min-height: var(--touch);
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
</style>
