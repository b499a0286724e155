<script setup lang="ts">
/** What is always at hand while layering. */
import IconMatte from '~icons/tabler/mask'
import SideButton from '@/controls/SideButton.vue'
import { usePhone } from '@/look/phone'
import { useLayer } from '@/inhand/useLayer'
import { useLayering } from '@/stores/layering'
import AddMenu from './AddMenu.vue'

const layering = useLayering()
const layer = useLayer()
const { phone } = usePhone()
</script>

<template>
  <SideButton
    :name="$t('layer.layerTools.matte')"
    :icon="IconMatte"
    :help="$t('layer.layerTools.whiteIsWhatIsSeen')"
    :aria-pressed="layering.matte"
    :disabled="!layer.clip.value"
    data-test="layer-matte"
    @click="layering.matte = !layering.matte"
  />
  <AddMenu v-if="phone" />
</template>
