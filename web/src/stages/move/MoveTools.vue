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
    :name="$t('move.moveTools.lanes')"
    :icon="IconLanes"
    :help="$t('move.moveTools.keysInLanesUnderThe')"
    :aria-pressed="moving.lanes"
    data-test="key-lanes"
    @click="moving.lanes = !moving.lanes"
  />
  <SideButton
    :name="$t('move.moveTools.skins')"
    :icon="IconSkin"
    :help="$t('move.moveTools.showsTheLayerAtIts')"
    :aria-pressed="moving.onion"
    data-test="onion"
    @click="moving.onion = !moving.onion"
  />
</template>
