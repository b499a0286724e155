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
    <MaskList
      :owner="owner"
      told="A mask says where the layer is seen. Several go together: added, subtracted, intersected. They are moved, sized and softened on the picture, and can have keys."
    />
  </fieldset>
</template>
