<script setup lang="ts">
/** A cover over what is tracked. */
import ToolLine from '@/controls/ToolLine.vue'
import { BButton } from 'bootstrap-vue-next'
import { ref } from 'vue'
import type { VideoClip } from '@/api/types'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import ValueField from '@/controls/ValueField.vue'
import { MARGIN } from '@/motion/covers'
import type { Moment } from '@/motion/tracks'
import { useCovering, type CoverHow, type CoverShape } from '@/picture/useCovering'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import type { Tracker } from '@/picture/useTracked'

const props = defineProps<{ clip: VideoClip; tracker: Tracker; now: Moment | null }>()

const HOWS = [
  { id: 'mosaic', name: t('layer.coverPart.mosaic') },
  { id: 'soft_blur', name: t('layer.coverPart.blur') },
  { id: 'plain', name: t('layer.coverPart.plain') },
] as const
const how = ref<CoverHow>('mosaic')
const SHAPES = [
  { id: 'ellipse', name: t('layer.coverPart.round') },
  { id: 'rectangle', name: t('layer.coverPart.square') },
] as const
const shape = ref<CoverShape>('ellipse')

const margin = ref(MARGIN)

const { ready, coverAt } = useCovering(() => props.clip)
const cover = () =>
  props.now && coverAt(props.tracker.id ?? '', props.now.quad, how.value, shape.value, margin.value)
</script>

<template>
  <TrayItem :name="$t('layer.coverPart.cover')">
    <ToolLine :name="$t('layer.coverPart.cover')">
      <ChoiceGroup
        :label="$t('layer.coverPart.how')"
        :choices="HOWS"
        :taken="how"
        @take="how = $event"
      />
      <BButton
        variant="primary"
        :disabled="!ready || !now"
        :title="$t('layer.coverPart.help')"
        data-test="cover-it"
        @click="cover"
      >
        {{ $t('layer.coverPart.coverIt') }}
      </BButton>
    </ToolLine>
    <ToolLine :name="$t('layer.coverPart.form')">
      <ChoiceGroup
        :label="$t('layer.coverPart.form')"
        :choices="SHAPES"
        :taken="shape"
        @take="shape = $event"
      />
    </ToolLine>
  </TrayItem>
  <ValueField
    :label="$t('layer.coverPart.margin')"
    :help="$t('layer.coverPart.marginHelp')"
    :value="margin * 100"
    :low="0"
    :high="100"
    :step="1"
    :reset="MARGIN * 100"
    unit="%"
    data-test="cover-margin"
    @trying="margin = $event / 100"
    @set="margin = $event / 100"
  />
</template>
