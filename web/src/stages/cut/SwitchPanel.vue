<script setup lang="ts">
/** Which angle of a multicam clip is seen: by taps on the wall, on names or digits, while it plays or not. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import type { MulticamClip } from '@/api/types'
import ChoiceRow from '@/controls/ChoiceRow.vue'
import ValueField from '@/controls/ValueField.vue'
import { anglesOf } from '@/motion/angles'
import { useAngles } from '@/stores/angles'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import AngleChips from './AngleChips.vue'
import FirstCut from './FirstCut.vue'
import HearPart from './HearPart.vue'
import { useSwitching } from './useSwitching'

const props = defineProps<{ clip: MulticamClip; locked: boolean }>()
const angles = useAngles()
const project = useProject()
const { change, live, tap } = useSwitching(() => props.clip)

const shown = computed(() => anglesOf(props.clip).filter((angle) => angle.seen))
const SHOWN = [
  { id: 'wall', name: t('cut.switchPanel.wall'), help: t('cut.switchPanel.wallHelp') },
  {
    id: 'both',
    name: t('cut.switchPanel.both'),
    help: t('cut.switchPanel.bothHelp'),
    test: 'view-both',
  },
  { id: 'film', name: t('cut.switchPanel.film'), help: t('cut.switchPanel.filmHelp') },
] as const
const CHANGES = [
  { id: 'from-here', name: t('cut.switchPanel.fromHere'), test: 'change-from-here' },
  { id: 'stretch', name: t('cut.switchPanel.stretch'), test: 'change-stretch' },
] as const
</script>

<template>
  <fieldset class="switching" :disabled="locked">
    <TrayItem :name="$t('cut.switchPanel.angles')" :told="String(live + 1)">
      <AngleChips :label="$t('cut.switchPanel.angles')" :angles="shown" :taken="live" @take="tap" />
      <p class="tiny quiet mb-0">
        {{
          angles.taps.length
            ? $t('cut.switchPanel.tapped', { n: angles.taps.length }, angles.taps.length)
            : $t('cut.switchPanel.whatItDoes')
        }}
      </p>
    </TrayItem>
    <ChoiceRow
      :name="$t('cut.switchPanel.picture')"
      :choices="SHOWN"
      :taken="angles.view"
      @take="angles.view = $event"
    />
    <ChoiceRow
      :name="$t('cut.switchPanel.tapChanges')"
      :choices="CHANGES"
      :taken="change"
      @take="change = $event"
    />
    <HearPart :clip="clip" />
    <ValueField
      :label="$t('cut.switchPanel.delay')"
      :help="$t('cut.switchPanel.delayHelp')"
      :value="angles.delay"
      :low="0"
      :high="15"
      :step="1"
      unit="f"
      :reset="0"
      @set="angles.delay = Math.max(0, Math.round($event))"
    />
    <FirstCut :clip="clip" />
    <TrayItem :name="$t('cut.switchPanel.layOut')" last>
      <div>
        <BButton
          variant="secondary"
          size="sm"
          data-test="lay-out"
          :title="$t('cut.switchPanel.layOutHelp')"
          @click="project.edit({ kind: 'lay_out', clip: clip.id ?? '' })"
        >
          {{ $t('cut.switchPanel.layOut') }}
        </BButton>
      </div>
    </TrayItem>
  </fieldset>
</template>

<style scoped>
.switching {
  display: grid;
  gap: 6px;
  min-width: 0;
}
</style>
