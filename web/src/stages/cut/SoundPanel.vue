<script setup lang="ts">
/** The sound of the clip in hand. */
import { TICKS_PER_SECOND, type SoundingClip } from '@/api/types'
import ValueField from '@/controls/ValueField.vue'
import { useProject } from '@/stores/project'
import { frameTicks } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'
import { KEYED, plain, useAdjust } from './useAdjust'
import SwitchField from '@/controls/SwitchField.vue'

const props = defineProps<{ clip: SoundingClip; locked: boolean }>()
const project = useProject()
const { set } = useAdjust(() => props.clip.id ?? '')

const seconds = (ticks: number) => ticks / TICKS_PER_SECOND

function fade(which: 'fade_in' | 'fade_out', value: number) {
  const step = frameTicks(project.rate)
  const ticks = Math.round((Math.max(0, value) * TICKS_PER_SECOND) / step) * step
  set({ [which]: Math.min(ticks, props.clip.length) })
}
</script>

<template>
  <fieldset :disabled="locked">
    <TrayItem name="Heard" :told="clip.muted ? 'no' : 'yes'">
      <SwitchField :on="!clip.muted" @update:on="set({ muted: !$event })"> Heard </SwitchField>
    </TrayItem>
    <ValueField
      label="Gain"
      :value="plain(clip.gain) ?? 0"
      :low="-60"
      :high="12"
      :step="0.5"
      :digits="1"
      unit="dB"
      :reset="0"
      :note="plain(clip.gain) === null ? KEYED : ''"
      @set="set({ gain: Math.min(24, Math.max(-60, $event)) })"
    />
    <ValueField
      label="Fade in"
      :value="seconds(clip.fade_in)"
      :low="0"
      :high="Math.min(5, seconds(clip.length))"
      :step="0.1"
      :digits="2"
      unit="s"
      :reset="0"
      @set="fade('fade_in', $event)"
    />
    <ValueField
      label="Fade out"
      :value="seconds(clip.fade_out)"
      :low="0"
      :high="Math.min(5, seconds(clip.length))"
      :step="0.1"
      :digits="2"
      unit="s"
      :reset="0"
      @set="fade('fade_out', $event)"
    />
  </fieldset>
</template>
