<script setup lang="ts">
/** The keys of one property as a graph, what can be done with those in hand, and their pace. */
import { BDropdown, BDropdownItemButton } from 'bootstrap-vue-next'
import { computed, ref, watch } from 'vue'
import IconCopy from '~icons/tabler/copy'
import IconDelete from '~icons/tabler/trash'
import IconEarlier from '~icons/tabler/chevron-left'
import IconLater from '~icons/tabler/chevron-right'
import IconLinked from '~icons/tabler/link'
import IconBroken from '~icons/tabler/unlink'
import IconMore from '~icons/tabler/dots'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import { axesOf } from './graph'
import { isKeyed } from '@/motion/keys'
import { nameOf } from '@/motion/names'
import { keyedProps } from '@/motion/props'
import type { Layer } from '@/stages/layer/useLayer'
import { useClipboard } from '@/stores/clipboard'
import { useHand } from '@/stores/hand'
import { useMoving } from '@/stores/moving'
import EaseTiles from './EaseTiles.vue'
import KeyGraph from './KeyGraph.vue'
import { useKeys } from './useKeys'

const props = defineProps<{ layer: Layer }>()
const moving = useMoving()
const clipboard = useClipboard()
const hand = useHand()
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

const taken = computed(() => keys.count.value)
const told = computed(() =>
  taken.value ? `${taken.value} key${taken.value > 1 ? 's' : ''} in hand` : 'No key in hand',
)
const factor = ref(150)

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
    <div class="line verbs">
      <span class="tiny quiet told" role="status" data-test="keys-told">{{ told }}</span>
      <button class="btn btn-bare" :disabled="!hasKeys" data-test="take-all-keys" @click="takeAll">
        All
      </button>
      <button
        class="btn btn-bare"
        :disabled="!taken"
        aria-label="One frame earlier"
        title="One frame earlier"
        @click="keys.shift(-keys.frame.value)"
      >
        <IconEarlier aria-hidden="true" />
      </button>
      <button
        class="btn btn-bare"
        :disabled="!taken"
        aria-label="One frame later"
        title="One frame later"
        data-test="keys-later"
        @click="keys.shift(keys.frame.value)"
      >
        <IconLater aria-hidden="true" />
      </button>
      <button
        class="btn btn-bare"
        :aria-pressed="moving.linked"
        :title="
          moving.linked ? 'Both handles of a key stay in line' : 'Each handle goes its own way'
        "
        data-test="handles-linked"
        @click="moving.linked = !moving.linked"
      >
        <IconLinked v-if="moving.linked" aria-hidden="true" />
        <IconBroken v-else aria-hidden="true" />
        <span class="word">{{ moving.linked ? 'Linked' : 'Broken' }}</span>
      </button>
      <button
        class="btn btn-bare"
        :disabled="!taken"
        aria-label="Copy the keys"
        title="Copy the keys"
        data-test="copy-keys"
        @click="keys.copy()"
      >
        <IconCopy aria-hidden="true" />
      </button>
      <button
        class="btn btn-bare"
        :disabled="!taken"
        aria-label="Delete the keys"
        title="Delete the keys"
        data-test="remove-keys"
        @click="keys.remove()"
      >
        <IconDelete aria-hidden="true" />
      </button>
      <BDropdown
        size="sm"
        :variant="null"
        toggle-class="btn-bare"
        no-caret
        teleport-to="body"
        strategy="fixed"
        data-test="keys-more"
      >
        <template #button-content><IconMore aria-label="More for keys" /></template>
        <BDropdownItemButton data-test="take-every-key" @click="keys.takeEvery()">
          Take every key of what is in hand
        </BDropdownItemButton>
        <BDropdownItemButton
          :disabled="!clipboard.keys.length"
          data-test="paste-keys"
          @click="keys.paste()"
        >
          Paste keys at the playhead
        </BDropdownItemButton>
        <BDropdownItemButton :disabled="taken < 2" data-test="mirror-keys" @click="keys.mirror()">
          There and back
        </BDropdownItemButton>
        <BDropdownItemButton :disabled="taken < 2" data-test="reverse-keys" @click="keys.reverse()">
          Reverse
        </BDropdownItemButton>
        <li class="ask">
          <input v-model.number="factor" type="number" min="5" max="1000" aria-label="Percent" /> %
          <button
            class="btn btn-sm btn-secondary"
            :disabled="taken < 2 || !(factor > 0)"
            data-test="stretch-keys"
            @click="keys.stretch(factor / 100)"
          >
            Stretch
          </button>
        </li>
        <li class="ask">
          <input v-model.number="moving.later" type="number" aria-label="Frames later" /> frames
          <button
            class="btn btn-sm btn-secondary"
            :disabled="hand.ids.length < 2 || !moving.later"
            title="Each layer in hand begins so much after the one taken before it"
            data-test="later-keys"
            @click="keys.later(moving.later)"
          >
            Later along {{ hand.ids.length }} layers
          </button>
        </li>
      </BDropdown>
    </div>
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
.verbs {
  gap: 0;
}
.verbs .btn {
  font-size: 13px;
  padding: 0 7px;
  gap: 4px;
  min-height: 34px;
}
.told {
  flex: 1;
  white-space: nowrap;
}
.ask {
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 4px 16px;
}
.ask input {
  width: 64px;
}
@media (pointer: coarse) {
  .verbs .btn {
    min-height: var(--touch);
    min-width: 40px;
  }
}
@media (max-width: 759px) {
  .keys {
    grid-template-rows: auto 190px auto auto;
  }
  .verbs .word {
    display: none;
  }
}
</style>
