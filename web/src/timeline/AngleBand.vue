<script setup lang="ts">
/** On a multicam clip: which angle is seen when, by colour and digit. */
import { computed } from 'vue'
import { tagColour } from '@/api/kinds'
import { TICKS_PER_SECOND, type MulticamClip } from '@/api/types'
import { anglesOf, digitOf, stretchesOf } from '@/motion/angles'

const props = defineProps<{
  clip: MulticamClip
  pxPerSecond: number
  /** Pixels of the clip between which it can be seen. */
  from: number
  to: number
}>()

const parts = computed(() => {
  const angles = anglesOf(props.clip)
  const px = (tick: number) =>
    ((tick - (props.clip.start ?? 0)) / TICKS_PER_SECOND) * props.pxPerSecond
  return stretchesOf(props.clip)
    .map(({ from, to, angle, at }) => ({
      at,
      left: px(from),
      width: px(to) - px(from),
      colour: tagColour(angles[angle]?.tag),
      digit: digitOf(angle),
    }))
    .filter(({ left, width }) => left < props.to && left + width > props.from)
})
</script>

<template>
  <div class="band" aria-hidden="true">
    <span
      v-for="one in parts"
      :key="one.at"
      :style="{ left: `${one.left}px`, width: `${one.width}px`, background: one.colour }"
      ><b v-if="one.width > 12">{{ one.digit }}</b></span
    >
  </div>
</template>

<style scoped>
.band {
  position: absolute;
  inset: auto 0 0;
  height: min(18px, 40%);
  z-index: 1;
  pointer-events: none;
}
span {
  position: absolute;
  top: 0;
  bottom: 0;
  border-left: 1px solid #17141a;
  overflow: hidden;
}
b {
  display: block;
  padding-left: 4px;
  color: #17141a;
  font-size: 11px;
  line-height: 1;
}
</style>
