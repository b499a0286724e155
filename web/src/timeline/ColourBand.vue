<script setup lang="ts">
/** Along the lower edge of a clip: what of it is shown when, by colour and digit. */
defineProps<{
  parts: readonly { at: number; left: number; width: number; colour: string; digit: string }[]
}>()
</script>

<template>
  <div class="band" aria-hidden="true">
    <span
      v-for="one in parts"
      :key="one.at"
      :style="{ left: `${one.left}px`, width: `${one.width}px`, background: one.colour }"
      ><b v-if="one.width > 12">{{ one.digit }}</b></span
    >
    <slot />
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
