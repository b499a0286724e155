<script setup lang="ts">
/** Looks closer at the time of a graph, and at all of it again. */
import IconIn from '~icons/tabler/zoom-in'
import IconOut from '~icons/tabler/zoom-out'
import type { TimeWindow } from './useTimeWindow'

const props = defineProps<{
  time: Pick<TimeWindow, 'zoom' | 'close'>
  /** What stays where it is. */
  around?: number
}>()
const closer = (factor: number) => props.time.zoom(factor, props.around)
</script>

<template>
  <span class="zoom" role="group" :aria-label="$t('controls.timeZoom.zoomInTime')">
    <button
      type="button"
      class="btn-bare"
      :disabled="time.close.value <= 1"
      :title="$t('controls.timeZoom.farther')"
      data-test="time-farther"
      @click="closer(1 / 2)"
    >
      <IconOut aria-hidden="true" />
    </button>
    <button
      type="button"
      class="btn-bare"
      :title="$t('controls.timeZoom.closer')"
      data-test="time-closer"
      @click="closer(2)"
    >
      <IconIn aria-hidden="true" />
    </button>
  </span>
</template>

<style scoped>
.zoom {
  display: inline-flex;
  flex: none;
}
.zoom button {
  min-width: 34px;
  min-height: 34px;
}
.zoom button:disabled {
  opacity: 0.35;
}
@media (pointer: coarse) {
  .zoom button {
    min-width: 44px;
    min-height: 44px;
  }
}
</style>
