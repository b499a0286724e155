<script setup lang="ts">
/** Over the picture while grading, where the scopes have no place beside the controls. */
import { computed } from 'vue'
import { usePhone } from '@/look/phone'
import { useGrading } from '@/stores/grading'
import { usePage } from '@/stores/page'
import ScopeBand from './ScopeBand.vue'

const grading = useGrading()
const page = usePage()
const { phone } = usePhone()
const shown = computed(() => grading.banded && (phone.value || page.leftAway))
</script>

<template>
  <ScopeBand v-if="shown" />
</template>
