<script setup lang="ts">
/** Levels of both sides: the mean filled, the peak as a line, held; and whether it was too loud. */
import { computed, onScopeDispose, ref, watch } from 'vue'
import { useScreen } from '@/player/inject'
import { gainLabel, shareOf } from '@/controls/faders'
import type { Level } from './useLevels'

const props = defineProps<{
  level: Level | undefined
  /** dB above which a peak is too loud. */
  ceiling: number
  name: string
}>()
const { player } = useScreen()

const HOLD_MS = 1500
const SILENT = -100
const held = ref(SILENT)
const over = ref(false)
let letGo = 0

const peak = computed(() => Math.max(props.level?.[0] ?? SILENT, props.level?.[1] ?? SILENT))

watch(peak, (now) => {
  if (now > props.ceiling + 0.05) over.value = true
  if (now < held.value) return
  held.value = now
  window.clearTimeout(letGo)
  letGo = window.setTimeout(() => (held.value = peak.value), HOLD_MS)
})
watch(player.playing, (playing) => playing && forget())
onScopeDispose(() => window.clearTimeout(letGo))

function forget() {
  over.value = false
  held.value = SILENT
}

const sides = computed(() =>
  [0, 1].map((side) => ({
    mean: `${shareOf(props.level?.[side + 2] ?? SILENT) * 100}%`,
    peak: `${shareOf(props.level?.[side] ?? SILENT) * 100}%`,
  })),
)
</script>

<template>
  <div
    class="meter"
    role="meter"
    :aria-label="$t('mix.stripMeter.level', { name })"
    aria-valuemin="-60"
    aria-valuemax="12"
    :aria-valuenow="Math.max(-60, Math.min(12, peak))"
    :aria-valuetext="`${gainLabel(peak)} dB`"
    data-test="meter"
  >
    <button
      class="held"
      :class="{ over }"
      :aria-label="
        over ? $t('mix.stripMeter.tooLoud', { name }) : $t('mix.stripMeter.highest', { name })
      "
      :title="over ? $t('mix.stripMeter.tooLoudTapToForget') : $t('mix.stripMeter.highestPeak')"
      @click="forget"
    >
      <span v-if="over" aria-hidden="true">▲</span>{{ held > -60 ? gainLabel(held) : '–' }}
    </button>
    <div class="bars">
      <div v-for="(side, index) in sides" :key="index" class="bar">
        <i class="mean" :style="{ height: side.mean }" />
        <i class="peak" :style="{ bottom: side.peak }" />
      </div>
      <i v-if="held > -60" class="hold" :style="{ bottom: `${shareOf(held) * 100}%` }" />
      <i class="even" :style="{ bottom: `${shareOf(0) * 100}%` }" />
    </div>
  </div>
</template>

<style scoped>
.meter {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  gap: 2px;
  justify-items: center;
  min-height: 0;
}
.held {
  border: 0;
  padding: 0 2px;
  min-width: 44px;
  min-height: 24px;
  border-radius: 6px 6px 2px 6px;
  background: none;
  color: var(--quiet);
  font-size: 12px;
  font-variant-numeric: tabular-nums;
}
.held.over {
  background: #7d2430;
  color: #fff;
}
.bars {
  position: relative;
  display: flex;
  gap: 2px;
  width: 18px;
  height: 100%;
}
.bar {
  position: relative;
  flex: 1;
  overflow: hidden;
  border-radius: 3px 3px 1px 3px;
  background: #100d13;
}
.mean {
  position: absolute;
  inset: auto 0 0;
  background: linear-gradient(to top, #2f7268, #4f9f92) bottom / 100% 100%;
}
.peak {
  position: absolute;
  left: 0;
  right: 0;
  height: 2px;
  background: #8fd3c6;
}
.hold {
  position: absolute;
  left: -2px;
  right: -2px;
  height: 2px;
  background: var(--text);
}
.even {
  position: absolute;
  left: -4px;
  right: -4px;
  height: 1px;
  background: #ffffff40;
}
</style>
