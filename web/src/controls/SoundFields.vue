<script setup lang="ts">
/** How the clip in hand sounds; its gain at the playhead, which may have keys. */
import { computed } from 'vue'
import { isSounding, TICKS_PER_SECOND } from '@/api/types'
import ValueField from '@/controls/ValueField.vue'
import SwitchField from '@/controls/SwitchField.vue'
import { useProperties } from '@/inhand/useProperties'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import { frameTicks } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'

const project = useProject()
const sound = useProperties(isSounding)
const clip = computed(() => sound.clip.value)

const seconds = (ticks: number) => ticks / TICKS_PER_SECOND
const gain = (value: number) => ({ gain: Math.min(24, Math.max(-60, value)) })

const FADES = [
  { path: 'fade_in', label: t('controls.soundFields.fadeIn') },
  { path: 'fade_out', label: t('controls.soundFields.fadeOut') },
] as const

function fade(path: (typeof FADES)[number]['path'], value: number) {
  const step = frameTicks(project.rate)
  const ticks = Math.round((Math.max(0, value) * TICKS_PER_SECOND) / step) * step
  sound.setWhole({ [path]: Math.min(ticks, clip.value?.length ?? 0) })
}
</script>

<template>
  <fieldset v-if="clip" :disabled="sound.locked.value">
    <TrayItem
      :name="$t('controls.soundFields.heard')"
      :told="clip.muted ? $t('controls.soundFields.no') : $t('controls.soundFields.yes')"
    >
      <SwitchField :on="!clip.muted" @update:on="sound.setWhole({ muted: !$event })">
        {{ $t('controls.soundFields.heard') }}
      </SwitchField>
    </TrayItem>
    <ValueField
      :label="$t('controls.soundFields.gain')"
      :help="$t('controls.soundFields.atThePlayheadWithKeys')"
      :value="sound.now('gain', 0)"
      :low="-60"
      :high="12"
      :step="0.5"
      :digits="1"
      unit="dB"
      :reset="0"
      :keyed="sound.keyed('gain')"
      @set="sound.set(gain($event))"
      @key="sound.toggleKey('gain', 0)"
    />
    <ValueField
      v-for="one in FADES"
      :key="one.path"
      :label="one.label"
      :value="seconds(clip[one.path] ?? 0)"
      :low="0"
      :high="Math.min(5, seconds(clip.length))"
      :step="0.1"
      :digits="2"
      unit="s"
      :reset="0"
      @set="fade(one.path, $event)"
    />
  </fieldset>
</template>
