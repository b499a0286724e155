<script setup lang="ts">
/** Which other layer an effect reads. */
import { computed } from 'vue'
import { useProject } from '@/stores/project'
import { othersOf } from './effects'
import SourceChoice from './SourceChoice.vue'

const props = defineProps<{ own: readonly string[]; layer: string }>()
defineEmits<{ set: [layer: string] }>()
const project = useProject()
const layers = computed(() => othersOf(project.tracks, props.own))
</script>

<template>
  <SourceChoice
    :label="$t('layer.layerChoice.reads')"
    :help="$t('layer.layerChoice.help')"
    :none="$t('layer.layerChoice.none')"
    :gone="$t('layer.layerChoice.gone')"
    :choices="layers"
    :taken="layer"
    @set="$emit('set', $event)"
  />
</template>
