<script setup lang="ts" generic="T extends string | number">
/** A few choices behind their name; one of the controls of its part. */
import { computed } from 'vue'
import TrayItem from '@/tray/TrayItem.vue'
import ChoiceGroup from './ChoiceGroup.vue'

const props = defineProps<{
  name: string
  /** What is chosen, where the name alone does not say it. */
  label?: string
  choices: readonly { id: T; name: string; help?: string; test?: string }[]
  taken: T
  /** What it does, as a sentence. */
  help?: string
}>()
defineEmits<{ take: [id: T] }>()
const told = computed(() => props.choices.find((one) => one.id === props.taken)?.name)
</script>

<template>
  <TrayItem :name="name" :told="told">
    <div class="line">
      <span class="name" :title="help">{{ name }}</span>
      <ChoiceGroup
        :label="label ?? name"
        :choices="choices"
        :taken="taken"
        @take="$emit('take', $event)"
      />
    </div>
    <slot />
  </TrayItem>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
  min-height: 36px;
}
.name {
  min-width: 84px;
  color: var(--soft);
}
</style>
