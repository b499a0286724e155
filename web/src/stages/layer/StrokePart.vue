<script setup lang="ts">
/** One stroke: its values, and what it goes along with. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import type { RetouchedClip, RetouchStroke } from '@/api/types'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import ControlFields from '@/controls/ControlFields.vue'
import ToolLine from '@/controls/ToolLine.vue'
import type { Layer } from '@/inhand/useLayer'
import { jobText } from '@/jobs/job'
import LeaderSelect from '@/picture/LeaderSelect.vue'
import { t } from '@/texts'
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
const go = async (tracker: string | null) =>
  props.layer.setPart('strokes', props.stroke.id ?? '', along.goneWith(tracker))
const FROM = [
  {
    id: 'around',
    name: t('layer.strokePart.fromAround'),
    help: t('layer.strokePart.fromAroundHelp'),
  },
  {
    id: 'moments',
    name: t('layer.strokePart.fromMoments'),
    help: t('layer.strokePart.fromMomentsHelp'),
  },
] as const
const fill = computed(() => (props.stroke.kind === 'fill_stroke' ? props.stroke : null))
const set = (values: Record<string, unknown>) =>
  props.layer.setPart('strokes', props.stroke.id ?? '', values)
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
        <LeaderSelect
          v-if="trackers.length"
          :label="$t('layer.strokePart.goesAlong')"
          :none="$t('layer.strokePart.stays')"
          :taken="stroke.tracker"
          data-test="stroke-along"
          @take="go($event)"
        />
      </template>
    </ToolLine>
  </TrayItem>
  <TrayItem
    v-if="clip.kind === 'video' && fill"
    :name="$t('layer.strokePart.from')"
    :told="fill.taken_from === 'moments' ? FROM[1].name : FROM[0].name"
  >
    <ToolLine :name="$t('layer.strokePart.from')" :label="$t('layer.strokePart.from')">
      <ChoiceGroup
        :label="$t('layer.strokePart.from')"
        :choices="FROM"
        :taken="fill.taken_from ?? 'around'"
        @take="set({ taken_from: $event })"
      />
    </ToolLine>
    <ToolLine
      v-if="fill.taken_from === 'moments' && trackers.length"
      :name="$t('layer.strokePart.behind')"
      :label="$t('layer.strokePart.behind')"
    >
      <LeaderSelect
        :label="$t('layer.strokePart.behind')"
        :none="$t('layer.strokePart.behindStays')"
        :taken="fill.behind"
        :title="$t('layer.strokePart.behindHelp')"
        data-test="stroke-behind"
        @take="set({ behind: $event })"
      />
    </ToolLine>
    <p v-else-if="fill.taken_from === 'moments'" class="tiny quiet mb-0">
      {{ $t('layer.strokePart.followFirst') }}
    </p>
  </TrayItem>
  <ControlFields
    :controls="controls"
    :values="stroke as unknown as Record<string, unknown>"
    :local="0"
    @trying="layer.tryPart('strokes', stroke.id ?? '', $event)"
    @set="layer.setPart('strokes', stroke.id ?? '', $event)"
  />
</template>
