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
      <IconPen aria-hidden="true" /> {{ $t('controls.pointBench.setPoints') }}
    </BButton>
    <slot />
    <KeyButton :label="$t('controls.pointBench.path')" :keyed="keyed" @click="$emit('key')" />
    <span class="tiny quiet hint">
      {{
        drawing.tool === 'pen'
          ? $t('controls.pointBench.tapOnThePictureTap')
          : $t('controls.pointBench.tapTheLineToAdd')
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
</style>
