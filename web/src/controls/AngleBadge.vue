<script setup lang="ts">
/** The digit of an angle on its colour. */
import { tagColour } from '@/api/kinds'
import { digitOf } from '@/motion/angles'

defineProps<{ index: number; tag: string }>()
</script>

<template>
  <b class="badge-of" :style="{ background: tagColour(tag) }">{{ digitOf(index) }}</b>
</template>

<style scoped>
.badge-of {
  min-width: 24px;
  border-radius: 6px 6px 2px 6px;
  color: #17141a;
  text-align: center;
}
</style>
