<script setup lang="ts">
/** Something that is on or off; what it says stands in its slot. */
import { BFormCheckbox } from 'bootstrap-vue-next'

defineProps<{ on: boolean }>()
defineEmits<{ 'update:on': [on: boolean] }>()
</script>

<template>
  <!-- Off it would tell nothing at all, which a step leaves out. -->
  <BFormCheckbox switch :model-value="on" @update:model-value="$emit('update:on', Boolean($event))">
    <slot />
  </BFormCheckbox>
</template>
