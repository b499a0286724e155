<script setup lang="ts">
/** Over the picture while grading on a phone. */
import { useGrading } from '@/stores/grading'
import ScopeBand from './ScopeBand.vue'

const grading = useGrading()
</script>

<template>
  <ScopeBand v-if="grading.banded" />
</template>
