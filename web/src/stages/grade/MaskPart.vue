<script setup lang="ts">
/** The masks of a zone. */
import MaskList from '@/picture/MaskList.vue'
import type { useGrade } from './useGrade'
import { useZoneMasks } from './zoneMasks'

const props = defineProps<{ grade: ReturnType<typeof useGrade> }>()
const owner = useZoneMasks(props.grade)
</script>

<template>
  <MaskList
    :owner="owner"
    told="A mask says where on the picture the zone works: a form, a line, a pen path, or what is painted."
  />
</template>
