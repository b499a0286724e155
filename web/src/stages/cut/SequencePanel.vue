<script setup lang="ts">
/** Numbered stills as one clip: time for each, and the order. */
import type { SequenceClip } from '@/api/types'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import ValueField from '@/controls/ValueField.vue'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import { frameTicks } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'
import { useAdjust } from './useAdjust'

const props = defineProps<{ clip: SequenceClip; locked: boolean }>()
const project = useProject()
const { set, trying } = useAdjust(() => props.clip.id ?? '')
const ORDERS = [
  { id: 'forward', name: t('cut.sequencePanel.forward') },
  { id: 'backward', name: t('cut.sequencePanel.backward') },
  { id: 'there_and_back', name: t('cut.sequencePanel.thereAndBack') },
] as const

const ticks = (frames: number) => Math.max(1, Math.round(frames)) * frameTicks(project.rate)
</script>

<template>
  <fieldset :disabled="locked">
    <TrayItem :name="$t('cut.sequencePanel.order')">
      <ChoiceGroup
        :label="$t('cut.sequencePanel.order')"
        :choices="ORDERS"
        :taken="clip.order"
        @take="set({ order: $event })"
      />
    </TrayItem>
    <ValueField
      :label="$t('cut.sequencePanel.eachFor')"
      :value="clip.each / frameTicks(project.rate)"
      :low="1"
      :high="60"
      :step="1"
      unit="f"
      @trying="trying({ each: ticks($event) })"
      @set="set({ each: ticks($event) })"
    />
    <p class="tiny quiet mb-0">
      {{ $t('cut.sequencePanel.picturesInTheOrderOf', { count: clip.pictures.length }) }}
    </p>
  </fieldset>
</template>
