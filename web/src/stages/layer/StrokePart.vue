<script setup lang="ts">
/** One stroke: its values, and what it goes along with. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import type { RetouchedClip, RetouchStroke } from '@/api/types'
import ControlFields from '@/controls/ControlFields.vue'
import ToolLine from '@/controls/ToolLine.vue'
import type { Layer } from '@/inhand/useLayer'
import { jobText } from '@/jobs/job'
import TrayItem from '@/tray/TrayItem.vue'
import { useRetouch } from './useRetouch'
import { useStrokeAlong } from './useStrokeAlong'

const props = defineProps<{ layer: Layer; clip: RetouchedClip; stroke: RetouchStroke }>()
const { controlsOf } = useRetouch(() => props.clip)
const controls = computed(() => controlsOf(props.stroke.kind))
const along = useStrokeAlong(
  () => props.clip,
  () => props.stroke,
)
const { trackers, job } = along
const told = computed(
  () => trackers.value.find(({ id }) => id === props.stroke.tracker)?.name ?? '',
)
const go = async (tracker: string) =>
  props.layer.setPart('strokes', props.stroke.id ?? '', along.goneWith(tracker))
</script>

<template>
  <TrayItem
    v-if="clip.kind === 'video'"
    :name="$t('layer.strokePart.goesAlong')"
    :told="told || $t('layer.strokePart.stays')"
  >
    <ToolLine :name="$t('layer.strokePart.goesAlong')">
      <template v-if="job">
        <span class="small" role="status">{{ jobText(job) }}</span>
        <BButton size="sm" variant="secondary" @click="along.cancel">{{
          $t('words.cancel')
        }}</BButton>
      </template>
      <template v-else>
        <BButton
          v-if="!stroke.tracker"
          size="sm"
          variant="primary"
          data-test="stroke-surroundings"
          :title="$t('layer.strokePart.surroundingsHelp')"
          @click="along.withSurroundings()"
        >
          {{ $t('layer.strokePart.surroundings') }}
        </BButton>
        <select
          v-if="trackers.length"
          class="form-select form-select-sm"
          :aria-label="$t('layer.strokePart.goesAlong')"
          :value="stroke.tracker ?? ''"
          data-test="stroke-along"
          @change="go(($event.target as HTMLSelectElement).value)"
        >
          <option value="">{{ $t('layer.strokePart.stays') }}</option>
          <option v-for="one in trackers" :key="one.id" :value="one.id">{{ one.name }}</option>
        </select>
      </template>
    </ToolLine>
  </TrayItem>
  <ControlFields
    :controls="controls"
    :values="stroke as unknown as Record<string, unknown>"
    :local="0"
    @trying="layer.tryPart('strokes', stroke.id ?? '', $event)"
    @set="layer.setPart('strokes', stroke.id ?? '', $event)"
  />
</template>

<style scoped>
.form-select {
  flex: 1;
  min-width: 110px;
  min-height: var(--touch);
}
</style>
