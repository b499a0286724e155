<script setup lang="ts">
/** What is always at hand while moving: keys seen on the timeline, and on the picture. */
import IconLanes from '~icons/tabler/list-details'
import IconSkin from '~icons/tabler/ghost'
import SideButton from '@/controls/SideButton.vue'
import { useMoving } from '@/stores/moving'

const moving = useMoving()
</script>

<template>
  <SideButton
    name="Lanes"
    :icon="IconLanes"
    help="Keys in lanes under the clip in hand, on the timeline"
    :aria-pressed="moving.lanes"
    data-test="key-lanes"
    @click="moving.lanes = !moving.lanes"
  />
  <SideButton
    name="Skins"
    :icon="IconSkin"
    help="Shows the layer at its neighbouring keys too"
    :aria-pressed="moving.onion"
    data-test="onion"
    @click="moving.onion = !moving.onion"
  />
</template>
