<script setup lang="ts">
/** The pen of a path, its keys, and the point in hand, which the points on the picture put here. */
import { BButton } from 'bootstrap-vue-next'
import { onBeforeUnmount, onMounted, ref } from 'vue'
import IconPen from '~icons/tabler/vector-bezier-2'
import { useDrawing } from '@/stores/drawing'
import KeyButton, { type Keyed } from './KeyButton.vue'

defineProps<{ keyed: Keyed }>()
defineEmits<{ key: [] }>()
const drawing = useDrawing()
const place = ref<HTMLElement | null>(null)
onMounted(() => (drawing.bench = place.value))
onBeforeUnmount(() => {
  if (drawing.bench === place.value) drawing.bench = null
})
</script>

<template>
  <div class="line">
    <BButton
      size="sm"
      variant="secondary"
      :aria-pressed="drawing.tool === 'pen'"
      data-test="pen"
      @click="drawing.put('pen')"
    >
      <IconPen aria-hidden="true" /> Set points
    </BButton>
    <slot />
    <KeyButton label="Path" :keyed="keyed" @click="$emit('key')" />
    <span class="tiny quiet hint">
      {{
        drawing.tool === 'pen'
          ? 'Tap on the picture; tap the first point to close the line.'
          : 'Tap the line to add a point; take a point to move it, join it otherwise or remove it.'
      }}
    </span>
  </div>
  <div ref="place" />
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
}
.hint {
  flex: 1 1 9em;
  min-width: 0;
  white-space: normal;
}
[aria-pressed='true'] {
  background: #453c4e;
  color: var(--text);
}
</style>
