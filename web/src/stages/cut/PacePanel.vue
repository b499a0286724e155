<script setup lang="ts">
/** How fast the clip in hand runs. */
import { BButton } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import { isSounding, TICKS_PER_SECOND, type PacedClip, type Step } from '@/api/types'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import ChoiceRow from '@/controls/ChoiceRow.vue'
import ValueField from '@/controls/ValueField.vue'
import { useHand } from '@/stores/hand'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import { lengthLabel } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'
import { FACTORS } from './pace'
import RampGraph from './RampGraph.vue'
import SlipRow from './SlipRow.vue'
import { useAdjust } from './useAdjust'
import { pointsOf, sourceOffset, steadySpeed } from '@/motion/speed'
import SwitchField from '@/controls/SwitchField.vue'

const props = defineProps<{ clip: PacedClip; locked: boolean }>()
const project = useProject()
const hand = useHand()
const { set } = useAdjust(() => props.clip.id ?? '')

const keep = ref<'content' | 'length'>('content')
const factor = computed(() => steadySpeed(props.clip.speed))
const shown = computed(() => Math.abs(factor.value ?? 1))
const sign = computed(() => ((factor.value ?? 1) < 0 ? -1 : 1))
const ramped = ref(false)
const showsRamp = computed(() => ramped.value || factor.value === null)

const KEEPS = [
  {
    id: 'content',
    name: t('cut.pacePanel.lengthFollows'),
    help: t('cut.pacePanel.theSamePartOfThe'),
    test: 'keep-content',
  },
  {
    id: 'length',
    name: t('cut.pacePanel.lengthStays'),
    help: t('cut.pacePanel.theClipKeepsItsLength'),
    test: 'keep-length',
  },
] as const
const BETWEEN = [
  {
    id: 'nearest',
    name: t('cut.pacePanel.nearest'),
    help: t('cut.pacePanel.wholeFramesOfTheTake'),
  },
  { id: 'blended', name: t('cut.pacePanel.blended'), help: t('cut.pacePanel.twoFramesMixed') },
  {
    id: 'motion',
    name: t('cut.pacePanel.motion'),
    help: t('cut.pacePanel.newPicturesByWhatMoves'),
  },
] as const

/** What a factor does to the length, said beforehand. */
const effect = computed(() => {
  if (keep.value === 'length') return t('cut.pacePanel.theLengthStays')
  const later = props.clip.length / TICKS_PER_SECOND
  return t('cut.pacePanel.nowAndAtTwo', {
    now: later.toFixed(2),
    then: ((later * shown.value) / 2).toFixed(2),
  })
})

function run(value: number) {
  const clips = hand.ids.length ? hand.ids : [props.clip.id ?? '']
  send({ kind: 'set_speed', clips, factor: value, keep: value === 0 ? 'length' : keep.value })
}

/** Without a ramp the same content lasts as long, at one speed. */
function switchRamp(on: boolean) {
  ramped.value = on
  if (on || factor.value !== null) return
  const { speed, length } = props.clip
  const mean = sourceOffset(pointsOf(speed), speed?.soft ?? true, length) / length
  const clips = [props.clip.id ?? '']
  send({ kind: 'set_speed', clips, factor: mean || 1, keep: mean ? 'content' : 'length' })
}

function fit(seconds: number) {
  const length = Math.max(1, Math.round(seconds * TICKS_PER_SECOND))
  send({ kind: 'fit', clip: props.clip.id ?? '', length })
}

function send(step: Step) {
  project.edit(step)
}
</script>

<template>
  <fieldset :disabled="locked">
    <TrayItem
      :name="$t('cut.pacePanel.speed')"
      :told="factor === null ? $t('cut.pacePanel.changing') : `${Number(factor.toFixed(2))} ×`"
    >
      <div class="line">
        <BButton
          v-for="one in FACTORS"
          :key="one"
          variant="secondary"
          :aria-pressed="factor === one * sign"
          :class="{ taken: factor === one * sign }"
          :data-test="`speed-${one}`"
          @click="run(one * sign)"
        >
          {{ one }} ×
        </BButton>
        <BButton
          variant="secondary"
          data-test="reverse"
          @click="send({ kind: 'reverse', clips: [clip.id ?? ''] })"
        >
          {{ sign < 0 ? $t('cut.pacePanel.forwards') : $t('cut.pacePanel.reverse') }}
        </BButton>
      </div>
    </TrayItem>
    <TrayItem :name="$t('cut.pacePanel.whatStays')" :told="keep">
      <ChoiceGroup
        :label="$t('cut.pacePanel.whatStays')"
        :choices="KEEPS"
        :taken="keep"
        @take="keep = $event"
      />
      <p class="tiny quiet mb-0">{{ effect }}</p>
    </TrayItem>
    <ValueField
      :label="$t('cut.pacePanel.factor')"
      :value="shown"
      :low="0.1"
      :high="8"
      :step="0.05"
      :digits="2"
      unit="×"
      :reset="1"
      :note="factor === null ? 'changes along the ramp' : ''"
      @set="run(Math.min(20, Math.max(0, $event)) * sign)"
    />
    <ValueField
      :label="$t('cut.pacePanel.fitInto')"
      :value="clip.length / TICKS_PER_SECOND"
      :low="0.2"
      :high="Math.max(2, (clip.length / TICKS_PER_SECOND) * 2)"
      :step="0.1"
      :digits="2"
      unit="s"
      @set="fit"
    />
    <TrayItem
      :name="$t('cut.pacePanel.ramp')"
      :told="showsRamp ? $t('words.isOn') : $t('words.isOff')"
    >
      <SwitchField :on="showsRamp" data-test="ramp-on" @update:on="switchRamp">
        {{ $t('cut.pacePanel.speedRamp') }}
      </SwitchField>
    </TrayItem>
    <RampGraph v-if="showsRamp" :clip="clip" :keep="keep" :locked="locked" @send="send" />
    <ChoiceRow
      v-if="clip.kind !== 'sound'"
      :name="$t('cut.pacePanel.betweenFrames')"
      :choices="BETWEEN"
      :taken="clip.between"
      @take="set({ between: $event })"
    />
    <template v-if="isSounding(clip)">
      <TrayItem
        :name="$t('cut.pacePanel.pitch')"
        :told="clip.keep_pitch ? $t('cut.pacePanel.kept') : ''"
      >
        <SwitchField :on="clip.keep_pitch" @update:on="set({ keep_pitch: $event })">
          {{ $t('cut.pacePanel.pitchKept') }}
        </SwitchField>
      </TrayItem>
      <ValueField
        :label="$t('cut.pacePanel.silentUnder')"
        :value="clip.silent_below"
        :low="0"
        :high="1"
        :step="0.05"
        :digits="2"
        unit="×"
        :reset="0.25"
        @set="set({ silent_below: Math.min(1, Math.max(0, $event)) })"
      />
    </template>
    <TrayItem :name="$t('cut.pacePanel.slip')"><SlipRow :clip="clip" /></TrayItem>
    <p class="tiny quiet mb-0">
      {{ $t('cut.pacePanel.lengthNow', { length: lengthLabel(clip.length) }) }}
    </p>
  </fieldset>
</template>

<style scoped>
fieldset {
  display: grid;
  gap: 6px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 5px;
}
.line .btn {
  padding: 2px 9px;
}
.taken {
  outline: 2px solid var(--accent);
}
</style>
