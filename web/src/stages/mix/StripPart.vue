<script setup lang="ts">
/** Gain and pan of a track or of the film, at the playhead. */
import { computed } from 'vue'
import ValueField from '@/controls/ValueField.vue'
import { useStrip } from './useStrip'

const props = defineProps<{ of: string }>()
const strip = useStrip(() => props.of)
const pan = computed(() => Math.round(strip.now('pan', 0) * 100))
</script>

<template>
  <fieldset>
    <ValueField
      :label="$t('mix.stripColumn.gain')"
      :help="$t('mix.stripPart.afterItsChain')"
      :value="strip.now('gain', 0)"
      :low="-60"
      :high="12"
      :step="0.5"
      :digits="1"
      unit="dB"
      signed
      :reset="0"
      :keyed="strip.keyed('gain')"
      @set="strip.set('gain', Math.max(-60, Math.min(24, $event)))"
      @key="strip.toggleKey('gain', 0)"
    />
    <ValueField
      :label="$t('controls.soundFields.pan')"
      :help="$t('controls.soundFields.fromLeftToRight')"
      :value="pan"
      :low="-100"
      :high="100"
      :step="1"
      unit="%"
      signed
      :reset="0"
      :keyed="strip.keyed('pan')"
      @set="strip.set('pan', Math.max(-1, Math.min(1, $event / 100)))"
      @key="strip.toggleKey('pan', 0)"
    />
  </fieldset>
</template>
