<script setup lang="ts">
/** By how much an insert turns down what is heard at the playhead. */
import { computed } from 'vue'
import type { Insert } from '@/api/types'
import TrayItem from '@/tray/TrayItem.vue'
import type { ChainOwner } from './chain'
import { useReduction } from './useReduction'

const props = defineProps<{ chain: ChainOwner; insert: Insert }>()
const reduction = useReduction(props.chain, () => props.insert)

/** Decibels of the whole bar. */
const MOST = 24
const wide = computed(() => `${(Math.min(MOST, reduction.value ?? 0) / MOST) * 100}%`)
const told = computed(() => (reduction.value === null ? '–' : `−${reduction.value.toFixed(1)} dB`))
</script>

<template>
  <TrayItem :name="$t('mix.reductionMeter.turnedDown')" :told="told">
    <div class="line meter-line">
      <span class="name">{{ $t('mix.reductionMeter.turnedDown') }}</span>
      <span
        class="bar"
        role="meter"
        :aria-label="$t('mix.reductionMeter.turnedDown')"
        :aria-valuenow="reduction ?? 0"
        aria-valuemin="0"
        :aria-valuemax="MOST"
        :aria-valuetext="told"
        data-test="reduction"
      >
        <span :style="{ width: wide }" />
      </span>
      <span class="value">{{ told }}</span>
    </div>
  </TrayItem>
</template>

<style scoped>
.meter-line {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 6px 0;
}
.name {
  min-width: 84px;
  color: var(--soft);
}
.bar {
  flex: 1;
  height: 10px;
  border-radius: 5px 5px 2px 5px;
  background: var(--rail);
  overflow: hidden;
  /* From the right: what is turned down is taken away from what is full. */
  display: flex;
  justify-content: flex-end;
}
.bar span {
  background: var(--mark);
}
.value {
  min-width: 72px;
  text-align: right;
  font-variant-numeric: tabular-nums;
}
</style>
