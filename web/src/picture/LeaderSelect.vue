<script setup lang="ts">
/** What something on the picture of the video in hand goes along with, if with anything. */
import { computed } from 'vue'
import ChoiceSelect from '@/controls/ChoiceSelect.vue'
import { useAlong } from './useAlong'

const props = defineProps<{
  label: string
  /** What it is called that it goes along with nothing. */
  none: string
  taken?: string | null
}>()
defineEmits<{ take: [tracker: string | null] }>()
const { trackers } = useAlong()
const choices = computed(() => [
  { id: '', name: props.none },
  ...trackers.value.map(({ id, name }) => ({ id: id ?? '', name: name ?? '' })),
])
</script>

<template>
  <ChoiceSelect
    :label="label"
    :choices="choices"
    :taken="taken ?? ''"
    @take="$emit('take', $event || null)"
  />
</template>
