<script setup lang="ts">
/** The values of one effect, when it begins, and what leads its values. */
import { computed } from 'vue'
import type { Effect } from '@/api/types'
import ControlFields from '@/controls/ControlFields.vue'
import type { Layer } from '@/inhand/useLayer'
import { useKit } from '@/stores/kit'
import TrayItem from '@/tray/TrayItem.vue'
import { lengthLabel } from '@/time'
import DrivePart from './DrivePart.vue'
import LayerChoice from './LayerChoice.vue'
import LookChoice from './LookChoice.vue'

const props = defineProps<{ layer: Layer; effect: Effect }>()
const kit = useKit()
const kind = computed(() => kit.layer?.effects.find((one) => one.kind === props.effect.kind))
const controls = computed(() =>
  (kind.value?.controls ?? []).filter(({ control }) => !['layer', 'look'].includes(control)),
)
/** Numbers and points that have keys can be led. */
const led = computed(() =>
  controls.value.filter(
    (one) => one.keyed && (typeof one.default === 'number' || one.control === 'spot'),
  ),
)
const since = computed(() => ('since' in props.effect ? (props.effect.since ?? 0) : null))
const set = (values: Record<string, unknown>) =>
  props.layer.setPart('effects', props.effect.id ?? '', values)
</script>

<template>
  <LayerChoice
    v-if="'layer' in effect"
    :own="layer.ids.value"
    :layer="effect.layer ?? ''"
    @set="set({ layer: $event })"
  />
  <LookChoice v-if="'look' in effect" :look="effect.look ?? ''" @set="set({ look: $event })" />
  <ControlFields
    :controls="controls"
    :values="effect as unknown as Record<string, unknown>"
    :local="layer.local.value"
    @trying="layer.tryPart('effects', effect.id ?? '', $event)"
    @set="set"
  />
  <TrayItem
    v-if="since !== null"
    :name="$t('layer.effectFields.begins')"
    :told="lengthLabel(since)"
  >
    <div class="line">
      <span>{{ $t('layer.effectFields.beginsAt', { at: lengthLabel(since) }) }}</span>
      <button
        class="btn btn-secondary btn-sm"
        data-test="begins-here"
        @click="set({ since: layer.local.value })"
      >
        {{ $t('layer.effectFields.here') }}
      </button>
    </div>
  </TrayItem>
  <DrivePart v-if="led.length" :layer="layer" :controls="led" @set="set" />
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
}
.btn {
  min-height: var(--touch);
}
</style>
