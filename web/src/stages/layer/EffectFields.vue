<script setup lang="ts">
/** The values of one effect. */
import ControlFields from '@/controls/ControlFields.vue'
import { useKit } from '@/stores/kit'
import type { Layer } from '@/inhand/useLayer'
import type { Effect } from '@/api/types'

defineProps<{ layer: Layer; effect: Effect }>()
const kit = useKit()
</script>

<template>
  <ControlFields
    :controls="kit.layer?.effects.find((one) => one.kind === effect.kind)?.controls ?? []"
    :values="effect as unknown as Record<string, unknown>"
    :local="layer.local.value"
    :fixed="['rate', 'seed']"
    @trying="layer.tryPart('effects', effect.id ?? '', $event)"
    @set="layer.setPart('effects', effect.id ?? '', $event)"
  />
</template>
