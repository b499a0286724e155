<script setup lang="ts">
/** The look whose table an effect reads. */
import { computed } from 'vue'
import { useKit } from '@/stores/kit'
import SourceChoice from './SourceChoice.vue'

defineProps<{ look: string }>()
defineEmits<{ set: [look: string] }>()
const kit = useKit()
const looks = computed(() => kit.looks.map(({ name, title }) => ({ id: name, name: title })))
</script>

<template>
  <SourceChoice
    :label="$t('layer.lookChoice.look')"
    :help="$t('layer.lookChoice.help')"
    :none="$t('layer.lookChoice.none')"
    :gone="$t('layer.lookChoice.gone')"
    :choices="looks"
    :taken="look"
    @set="$emit('set', $event)"
  />
</template>
