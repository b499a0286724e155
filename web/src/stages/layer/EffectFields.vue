<script setup lang="ts">
/** The values of one effect. */
import { computed } from 'vue'
import ControlFields from '@/controls/ControlFields.vue'
import { useKit } from '@/stores/kit'
import type { Layer } from '@/inhand/useLayer'
import type { Effect } from '@/api/types'

const props = defineProps<{ layer: Layer; effect: Effect }>()
const kit = useKit()
const kind = computed(() => kit.layer?.effects.find((one) => one.kind === props.effect.kind))
</script>

<template>
  <ControlFields
    :controls="kind?.controls ?? []"
    :values="effect as unknown as Record<string, unknown>"
    :local="layer.local.value"
    :fixed="kind?.fixed"
    @trying="layer.tryPart('effects', effect.id ?? '', $event)"
    @set="layer.setPart('effects', effect.id ?? '', $event)"
  />
</template>
