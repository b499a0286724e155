<script setup lang="ts">
/** A clip of several cameras that has none yet: where they come from. */
import { BButton } from 'bootstrap-vue-next'
import { useProject } from '@/stores/project'

const project = useProject()
</script>

<template>
  <div class="empty">
    <strong>{{ $t('cut.lineUp.empty') }}</strong>
    <span class="small quiet">{{ $t('cut.lineUp.fill') }}</span>
    <div>
      <BButton
        variant="primary"
        :to="{ name: 'studio', params: { id: project.id, stage: 'gather' } }"
        data-test="choose-takes"
      >
        {{ $t('cut.lineUp.choose') }}
      </BButton>
    </div>
  </div>
</template>

<style scoped>
.empty {
  display: grid;
  gap: 6px;
  align-content: start;
  max-width: 420px;
}
</style>
