<script setup lang="ts">
/** A point on the picture that a finger drags and arrows move. */
defineProps<{
  x: number
  y: number
  /** What it is, with its true value. */
  label: string
  test: string
  /** Of two, the one that follows. */
  dark?: boolean
}>()
defineEmits<{ down: [event: PointerEvent]; key: [event: KeyboardEvent] }>()
</script>

<template>
  <g>
    <circle
      class="touch"
      :cx="x"
      :cy="y"
      r="22"
      :data-test="test"
      role="button"
      tabindex="0"
      :aria-label="label"
      @keydown="$emit('key', $event)"
      @pointerdown.stop="$emit('down', $event)"
    />
    <circle class="knob" :class="{ dark }" :cx="x" :cy="y" r="8" />
  </g>
</template>

<style scoped>
.touch {
  fill: transparent;
  pointer-events: auto;
  cursor: grab;
}
.knob {
  fill: #fff;
  stroke: #161616;
  stroke-width: 2;
}
.knob.dark {
  fill: #161616;
  stroke: #fff;
}
</style>
