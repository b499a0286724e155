<script setup lang="ts">
/** How the clip in hand sounds: gain, pan, pitch, sides, fades with their shapes, how loud it is. */
import { BButton } from 'bootstrap-vue-next'
import { computed, ref, watch } from 'vue'
import { client, need, type Schemas } from '@/api/client'
import { TICKS_PER_SECOND, type SoundingClip } from '@/api/types'
import ChoiceRow from '@/controls/ChoiceRow.vue'
import SwitchField from '@/controls/SwitchField.vue'
import ValueField from '@/controls/ValueField.vue'
import type { Properties } from '@/inhand/useProperties'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import { frameTicks } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'
import { shifted } from './shifted'

const props = defineProps<{ sound: Properties }>()
const project = useProject()
const notes = useNotes()
const clip = computed(() => props.sound.clip.value as SoundingClip | null)

const bounded = (low: number, value: number, high: number) => Math.min(high, Math.max(low, value))
const seconds = (ticks: number) => ticks / TICKS_PER_SECOND

const ENDS = [
  { path: 'fade_in', shape: 'fade_in_shape', label: t('mix.clipPart.fadeIn') },
  { path: 'fade_out', shape: 'fade_out_shape', label: t('mix.clipPart.fadeOut') },
] as const
const SHAPES = [
  { id: 'smooth', name: t('mix.clipPart.smooth') },
  { id: 'straight', name: t('mix.clipPart.straight') },
  { id: 'early', name: t('mix.clipPart.early') },
  { id: 'late', name: t('mix.clipPart.late') },
] as const
const SIDES = [
  { id: 'both', name: t('mix.clipPart.both') },
  { id: 'left', name: t('mix.clipPart.left') },
  { id: 'right', name: t('mix.clipPart.right') },
  { id: 'swapped', name: t('mix.clipPart.swapped') },
  { id: 'mono', name: t('mix.clipPart.mono') },
] as const

function fade(path: (typeof ENDS)[number]['path'], value: number) {
  const step = frameTicks(project.rate)
  const ticks = Math.round((Math.max(0, value) * TICKS_PER_SECOND) / step) * step
  props.sound.setWhole({ [path]: Math.min(ticks, clip.value?.length ?? 0) })
}

const measured = ref<Schemas['ClipLoudness'] | null>(null)
const measuring = ref(false)
watch(
  () => clip.value?.id,
  () => (measured.value = null),
)

async function measure(): Promise<Schemas['ClipLoudness'] | null> {
  const id = clip.value?.id
  if (!id) return null
  measuring.value = true
  try {
    const path = { id: project.id, revision: project.revision, clip: id }
    const asked = client.GET('/api/projects/{id}/revisions/{revision}/clips/{clip}/loudness', {
      params: { path, query: project.look },
    })
    measured.value = await need(asked)
  } catch (error) {
    notes.problem(error)
  } finally {
    measuring.value = false
  }
  return measured.value
}

/** Decibels of the highest peak, and LUFS, to which a clip is brought. */
const PEAK = -1
const SPEECH = -18

async function bring(what: 'peak' | 'whole', to: number) {
  const found = await measure()
  if (!found) return
  if (found[what] <= -70) return notes.told(t('mix.clipPart.itIsSilent'))
  const by = to - found[what]
  const gain = shifted(props.sound.prop('gain'), by, { to: true })
  props.sound.setWhole({ gain })
}
</script>

<template>
  <fieldset v-if="clip" :disabled="sound.locked.value">
    <TrayItem
      :name="$t('mix.clipPart.heard')"
      :told="clip.muted ? $t('words.isOff') : $t('words.isOn')"
    >
      <SwitchField :on="!clip.muted" @update:on="sound.setWhole({ muted: !$event })">
        {{ $t('mix.clipPart.heard') }}
      </SwitchField>
    </TrayItem>
    <ValueField
      :label="$t('mix.stripColumn.gain')"
      :help="$t('mix.clipPart.atThePlayhead')"
      :value="sound.now('gain', 0)"
      :low="-60"
      :high="12"
      :step="0.5"
      :digits="1"
      unit="dB"
      signed
      :reset="0"
      :keyed="sound.keyed('gain')"
      @set="sound.set({ gain: bounded(-60, $event, 24) })"
      @key="sound.toggleKey('gain', 0)"
    />
    <ValueField
      :label="$t('mix.clipPart.pan')"
      :help="$t('mix.clipPart.fromLeftToRight')"
      :value="Math.round(sound.now('pan', 0) * 100)"
      :low="-100"
      :high="100"
      :step="1"
      unit="%"
      signed
      :reset="0"
      :keyed="sound.keyed('pan')"
      @set="sound.set({ pan: bounded(-1, $event / 100, 1) })"
      @key="sound.toggleKey('pan', 0)"
    />
    <ValueField
      :label="$t('mix.clipPart.pitch')"
      :help="$t('mix.clipPart.inSemitones')"
      :value="sound.now('pitch', 0)"
      :low="-12"
      :high="12"
      :step="1"
      :digits="2"
      unit="st"
      signed
      :reset="0"
      :keyed="sound.keyed('pitch')"
      @set="sound.set({ pitch: bounded(-24, $event, 24) })"
      @key="sound.toggleKey('pitch', 0)"
    />
    <template v-for="one in ENDS" :key="one.path">
      <ValueField
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
      <ChoiceRow
        v-if="clip[one.path]"
        :name="$t('mix.clipPart.shape', { fade: one.label })"
        :choices="SHAPES"
        :taken="clip[one.shape] ?? 'smooth'"
        @take="sound.setWhole({ [one.shape]: $event })"
      />
    </template>
    <ChoiceRow
      :name="$t('mix.clipPart.sides')"
      :help="$t('mix.clipPart.whichSides')"
      :choices="SIDES"
      :taken="clip.channels ?? 'both'"
      @take="sound.setWhole({ channels: $event })"
    />
    <TrayItem
      :name="$t('mix.clipPart.level')"
      :told="measured ? `${measured.whole.toFixed(1)} LUFS` : ''"
    >
      <div class="line level">
        <span class="name">{{ $t('mix.clipPart.level') }}</span>
        <BButton
          size="sm"
          variant="secondary"
          :disabled="measuring"
          data-test="level-peak"
          @click="bring('peak', PEAK)"
        >
          {{ $t('mix.clipPart.peakTo', { to: PEAK }) }}
        </BButton>
        <BButton
          size="sm"
          variant="secondary"
          :disabled="measuring"
          data-test="level-loud"
          @click="bring('whole', SPEECH)"
        >
          {{ $t('mix.clipPart.loudnessTo', { to: SPEECH }) }}
        </BButton>
        <span class="tiny quiet" role="status">
          <template v-if="measuring">{{ $t('mix.loudness.listening') }}</template>
          <template v-else-if="measured">
            {{
              $t('mix.clipPart.measured', {
                whole: measured.whole.toFixed(1),
                peak: measured.peak.toFixed(1),
              })
            }}
          </template>
        </span>
      </div>
    </TrayItem>
  </fieldset>
</template>

<style scoped>
.level {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
  padding: 6px 0;
}
.name {
  min-width: 84px;
  color: var(--soft);
}
</style>
