<script setup lang="ts">
/** Which other layer an effect reads. */
import { computed } from 'vue'
import { useProject } from '@/stores/project'
import TrayItem from '@/tray/TrayItem.vue'
import { othersOf } from './effects'

const props = defineProps<{ own: readonly string[]; layer: string }>()
defineEmits<{ set: [layer: string] }>()
const project = useProject()
const layers = computed(() => othersOf(project.tracks, props.own))
const now = computed(() => layers.value.find(({ id }) => id === props.layer))
</script>

<template>
  <TrayItem :name="$t('layer.layerChoice.reads')" :told="now?.name ?? $t('words.none')">
    <label class="line">
      <span class="name">{{ $t('layer.layerChoice.reads') }}</span>
      <select
        class="form-select form-select-sm"
        :value="layer"
        data-test="reads-layer"
        @change="$emit('set', ($event.target as HTMLSelectElement).value)"
      >
        <option value="">{{ $t('layer.layerChoice.none') }}</option>
        <option v-if="layer && !now" :value="layer">{{ $t('layer.layerChoice.gone') }}</option>
        <option v-for="one in layers" :key="one.id" :value="one.id">{{ one.name }}</option>
      </select>
    </label>
    <p class="tiny quiet mb-0">{{ $t('layer.layerChoice.help') }}</p>
  </TrayItem>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: 84px 1fr;
  align-items: center;
  gap: 8px;
}
.name {
  color: var(--soft);
}
select {
  min-height: var(--touch);
}
</style>
