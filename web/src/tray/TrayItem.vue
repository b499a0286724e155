<script setup lang="ts">
/** Something that is one control among those of a tray, such as a curve, or a few switches. */
import { ref } from 'vue'
import { useEntry } from './useEntry'

const props = defineProps<{
  name: string
  /** What it says of its value, short. */
  told?: string
  keyed?: boolean
  /** Whether it stands behind the others. */
  last?: boolean
}>()
const item = ref<HTMLElement | null>(null)
const { alone, away } = useEntry(
  item,
  () => props.name,
  () => props.told ?? '',
  () => props.keyed ?? false,
  () => props.last,
)
</script>

<template>
  <div v-show="!away" ref="item" class="item" :class="{ alone, away }"><slot :alone="alone" /></div>
</template>

<style scoped>
.item {
  display: contents;
}
.item.alone {
  display: flex;
  flex-direction: column;
  justify-content: safe center;
  gap: 6px;
  min-height: 0;
  min-width: 0;
  height: 100%;
  overflow-y: auto;
  scrollbar-width: none;
}
</style>
