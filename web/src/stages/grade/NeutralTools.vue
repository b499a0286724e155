<script setup lang="ts">
/** Finding white: by a tap on the picture, or by a proposal. */
import { BButton } from 'bootstrap-vue-next'
import { useGrading } from '@/stores/grading'

defineProps<{ asking: boolean }>()
const emit = defineEmits<{ suggest: [] }>()
const grading = useGrading()
</script>

<template>
  <div class="neutral">
    <BButton
      size="sm"
      variant="secondary"
      :aria-pressed="grading.tool === 'neutral'"
      :title="$t('grade.neutralTools.thenTapSomethingOnThe')"
      data-test="neutral"
      @click="grading.tool = grading.tool === 'neutral' ? '' : 'neutral'"
    >
      {{
        grading.tool === 'neutral'
          ? $t('grade.neutralTools.tapOnThePicture')
          : $t('grade.neutralTools.pickNeutral')
      }}
    </BButton>
    <BButton
      size="sm"
      variant="secondary"
      :disabled="asking"
      :title="$t('grade.neutralTools.aBalanceForTheLight')"
      data-test="suggest"
      @click="emit('suggest')"
    >
      {{ $t('grade.neutralTools.suggest') }}
    </BButton>
  </div>
</template>

<style scoped>
.neutral {
  display: flex;
  gap: 8px;
}
.phone .neutral .btn {
  flex: 1;
  min-height: 44px;
}
</style>
