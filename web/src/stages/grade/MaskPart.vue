<script setup lang="ts">
/** The masks of a zone. */
import MaskList from '@/picture/MaskList.vue'
import type { useGrade } from './useGrade'
import { useZoneMasks } from './zoneMasks'

const props = defineProps<{ grade: ReturnType<typeof useGrade> }>()
const owner = useZoneMasks(props.grade)
</script>

<template>
  <MaskList :owner="owner" :told="$t('grade.maskPart.aMaskSaysWhereOn')" />
</template>
