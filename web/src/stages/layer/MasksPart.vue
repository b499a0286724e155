<script setup lang="ts">
/** The masks of a layer. */
import type { Layer } from '@/inhand/useLayer'
import MaskList from '@/picture/MaskList.vue'
import { useLayerMasks } from './layerMasks'

const props = defineProps<{ layer: Layer }>()
const owner = useLayerMasks(props.layer)
</script>

<template>
  <fieldset :disabled="layer.locked.value">
    <MaskList :owner="owner" :told="$t('layer.masksPart.aMaskSaysWhereThe')" />
  </fieldset>
</template>
