<script setup lang="ts">
/** A place beside the pen for the point in hand; the points on the picture fill it. */
import { onBeforeUnmount, onMounted, ref } from 'vue'
import { useDrawing } from '@/stores/drawing'

const drawing = useDrawing()
const place = ref<HTMLElement | null>(null)
onMounted(() => (drawing.bench = place.value))
onBeforeUnmount(() => {
  if (drawing.bench === place.value) drawing.bench = null
})
</script>

<template>
  <div ref="place" class="point-bench" />
</template>
