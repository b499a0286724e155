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
import { lengthLabel } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'
import { FACTORS, factorOf, lengthAfter, type Point } from './pace'
import RampGraph from './RampGraph.vue'
import SlipRow from './SlipRow.vue'
import { useAdjust } from './useAdjust'
import SwitchField from '@/controls/SwitchField.vue'

const props = defineProps<{ clip: PacedClip; locked: boolean }>()
const project = useProject()
const hand = useHand()
const { set } = useAdjust(() => props.clip.id ?? '')

const keep = ref<'content' | 'length'>('content')
const factor = computed(() => factorOf(props.clip))
const shown = computed(() => Math.abs(factor.value ?? 1))
const sign = computed(() => ((factor.value ?? 1) < 0 ? -1 : 1))
const ramped = ref(false)
const showsRamp = computed(() => ramped.value || factor.value === null)

const KEEPS = [
  {
    id: 'content',
    name: 'Length follows',
    help: 'The same part of the take, in another time',
    test: 'keep-content',
  },
  {
    id: 'length',
    name: 'Length stays',
    help: 'The clip keeps its length and shows more or less of the take',
    test: 'keep-length',
  },
] as const
const BETWEEN = [
  { id: 'nearest', name: 'Nearest', help: 'Whole frames of the take' },
  { id: 'blended', name: 'Blended', help: 'Two frames mixed' },
  { id: 'motion', name: 'Motion', help: 'New pictures by what moves between two frames; slower' },
] as const

/** What a factor does to the length, said beforehand. */
const effect = computed(() => {
  if (keep.value === 'length') return 'The clip keeps its length.'
  const later = props.clip.length / TICKS_PER_SECOND
  return `${later.toFixed(2)} s now; at 2 × ${((later * shown.value) / 2).toFixed(2)} s. Later clips of the main track move.`
})

function run(value: number) {
  const clips = hand.ids.length ? hand.ids : [props.clip.id ?? '']
  send({ kind: 'set_speed', clips, factor: value, keep: value === 0 ? 'length' : keep.value })
}

function ramp(points: Point[], soft: boolean) {
  // What turns round has no length that follows.
  const kept = lengthAfter(props.clip, points) === null ? 'length' : keep.value
  send({ kind: 'ramp', clip: props.clip.id ?? '', points, soft, keep: kept })
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
    <TrayItem name="Speed" :told="factor === null ? 'ramp' : `${Number(factor.toFixed(2))} ×`">
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
          {{ sign < 0 ? 'Forwards' : 'Reverse' }}
        </BButton>
      </div>
    </TrayItem>
    <TrayItem name="What stays" :told="keep">
      <ChoiceGroup label="What stays" :choices="KEEPS" :taken="keep" @take="keep = $event" />
      <p class="tiny quiet mb-0">{{ effect }}</p>
    </TrayItem>
    <ValueField
      label="Factor"
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
      label="Fit into"
      :value="clip.length / TICKS_PER_SECOND"
      :low="0.2"
      :high="Math.max(2, (clip.length / TICKS_PER_SECOND) * 2)"
      :step="0.1"
      :digits="2"
      unit="s"
      @set="fit"
    />
    <TrayItem name="Ramp" :told="showsRamp ? 'on' : 'off'">
      <SwitchField :on="showsRamp" data-test="ramp-on" @update:on="ramped = $event">
        Speed ramp
      </SwitchField>
    </TrayItem>
    <TrayItem v-if="showsRamp" name="Ramp graph">
      <RampGraph :clip="clip" :keep="keep" :locked="locked" @set="ramp" />
    </TrayItem>
    <ChoiceRow
      v-if="clip.kind !== 'sound'"
      name="Between frames"
      :choices="BETWEEN"
      :taken="clip.between"
      @take="set({ between: $event })"
    />
    <template v-if="isSounding(clip)">
      <TrayItem name="Pitch" :told="clip.keep_pitch ? 'kept' : ''">
        <SwitchField :on="clip.keep_pitch" @update:on="set({ keep_pitch: $event })">
          Pitch kept
        </SwitchField>
      </TrayItem>
      <ValueField
        label="Silent under"
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
    <TrayItem name="Slip"><SlipRow :clip="clip" /></TrayItem>
    <p class="tiny quiet mb-0">Length now {{ lengthLabel(clip.length) }}.</p>
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
