<script setup lang="ts">
/** The bench of a mouth: its voice above, what it does below, its poses to tap, and how it moves. */
import { BButton } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import type { MouthClip } from '@/api/types'
import ChoiceRow from '@/controls/ChoiceRow.vue'
import ControlFields from '@/controls/ControlFields.vue'
import ToolLine from '@/controls/ToolLine.vue'
import { filmTick } from '@/motion/mouth'
import { useScreen } from '@/player/inject'
import { useKit } from '@/stores/kit'
import { useMouth } from '@/stores/mouth'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import { frameOf, frameTicks } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'
import MouthLane from './MouthLane.vue'
import PoseSet from './PoseSet.vue'
import PoseTiles from './PoseTiles.vue'
import { useMouthing } from './useMouthing'
import VoiceDialog from './VoiceDialog.vue'

const props = defineProps<{ clip: MouthClip; locked: boolean }>()
const kit = useKit()
const mouth = useMouth()
const project = useProject()
const { player } = useScreen()
const { poses, own, stretch, rows, here, live, meant, press, release } = useMouthing(
  () => props.clip,
)

const id = computed(() => props.clip.id ?? '')
const step = computed(() => frameTicks(project.rate))
const base = computed(() => `${project.source.base}/clips/${id.value}`)
const voice = computed(() => {
  const tracks = new URLSearchParams(
    (mouth.voices[id.value] ?? []).map((track): [string, string] => ['tracks', track]),
  )
  return `${base.value}/voice.jpg?${tracks.toString()}`
})
const titles = computed(() =>
  Object.fromEntries((kit.move?.poses ?? []).map(({ name, help }) => [name, help])),
)
const seek = (to: number) => player.seek(frameOf(filmTick(props.clip, to), project.rate))

const CHANGES = [
  { id: 'from-here', name: t('move.mouthBench.fromHere'), test: 'change-from-here' },
  { id: 'stretch', name: t('move.mouthBench.stretch'), test: 'change-stretch' },
  { id: 'alike', name: t('move.mouthBench.alike'), test: 'change-alike' },
] as const

const talking = ref(false)
const dialog = ref<{ rest(): Promise<void> } | null>(null)

/** The change with which the pose under the playhead begins. */
const begins = computed(() => (here.value && here.value.at >= 0 ? here.value.at : null))
const roll = (at: number, by: number) => project.edit({ kind: 'roll_turn', clip: id.value, at, by })
const remove = () => project.edit({ kind: 'remove_turns', clip: id.value, at: meant() })

const ways = computed(() =>
  (kit.move?.mouth_ways ?? []).map(({ kind, title, help }) => ({
    id: kind,
    name: title,
    help,
    test: `way-${kind}`,
  })),
)
const way = computed(() => props.clip.way ?? { kind: 'swapped' as const })
const wayKind = computed(() => kit.move?.mouth_ways.find(({ kind }) => kind === way.value.kind))
const setWay = (values: Record<string, unknown>) =>
  project.edit({ kind: 'mouth_way', clip: id.value, way: values as never })
const markers = computed(() => (props.clip.markers ?? []).length + project.markers.length > 0)
</script>

<template>
  <fieldset class="mouth" :disabled="locked">
    <TrayItem :name="$t('move.mouthBench.poses')" :told="live">
      <MouthLane
        :rows="rows"
        :poses="poses"
        :low="stretch.low"
        :high="stretch.high"
        :at="own"
        :voice="voice"
        :step="step"
        :locked="locked"
        @seek="seek"
        @roll="roll"
      />
      <PoseTiles
        :poses="poses"
        :source="`${base}/poses.jpg`"
        :live="live"
        :titles="titles"
        @press="press"
        @release="release"
      />
      <p v-if="mouth.taps.length" class="tiny quiet mb-0" role="status">
        {{ $t('move.mouthBench.tapped', { n: mouth.taps.length }, mouth.taps.length) }}
      </p>
    </TrayItem>
    <TrayItem :name="$t('move.mouthBench.voice')">
      <ToolLine :label="$t('move.mouthBench.voice')">
        <BButton size="sm" variant="primary" data-test="lead-mouth" @click="talking = true">
          {{ $t('move.mouthBench.lead') }}
        </BButton>
        <BButton
          size="sm"
          variant="secondary"
          data-test="rest-in-pauses"
          :title="$t('move.mouthBench.restHelp')"
          @click="dialog?.rest()"
        >
          {{ $t('move.mouthBench.rest') }}
        </BButton>
      </ToolLine>
      <p class="tiny quiet mb-0">{{ $t('move.mouthBench.voiceHelp') }}</p>
      <VoiceDialog ref="dialog" v-model="talking" :clip="clip" />
    </TrayItem>
    <ChoiceRow
      :name="$t('move.mouthBench.tapChanges')"
      :choices="CHANGES"
      :taken="mouth.change"
      @take="mouth.change = $event"
    />
    <TrayItem :name="$t('move.mouthBench.change')">
      <ToolLine :label="$t('move.mouthBench.change')">
        <BButton
          size="sm"
          variant="secondary"
          data-test="turn-earlier"
          :disabled="begins === null"
          @click="roll(begins ?? 0, -step)"
        >
          {{ $t('move.mouthBench.earlier') }}
        </BButton>
        <BButton
          size="sm"
          variant="secondary"
          data-test="turn-later"
          :disabled="begins === null"
          @click="roll(begins ?? 0, step)"
        >
          {{ $t('move.mouthBench.later') }}
        </BButton>
        <BButton
          size="sm"
          variant="secondary"
          data-test="remove-turn"
          :disabled="begins === null"
          @click="remove"
        >
          {{
            mouth.change === 'alike'
              ? $t('move.mouthBench.removeAll')
              : $t('move.mouthBench.remove')
          }}
        </BButton>
        <BButton
          size="sm"
          variant="secondary"
          data-test="clear-turns"
          :disabled="!(clip.turns ?? []).length"
          @click="project.edit({ kind: 'clear_turns', clip: id })"
        >
          {{ $t('move.mouthBench.clear') }}
        </BButton>
      </ToolLine>
      <p class="tiny quiet mb-0">
        {{
          here?.sure == null
            ? $t('move.mouthBench.changeHelp', { pose: live })
            : $t('move.mouthBench.sure', { pose: live, sure: Math.round(here.sure * 100) })
        }}
      </p>
    </TrayItem>
    <ChoiceRow
      :name="$t('move.mouthBench.way')"
      :choices="ways"
      :taken="way.kind ?? 'swapped'"
      @take="setWay({ kind: $event })"
    />
    <ControlFields
      :controls="wayKind?.controls ?? []"
      :values="way"
      :local="0"
      @set="setWay({ ...way, ...$event })"
    />
    <PoseSet :clip="clip" :poses="poses" :pose="live" />
    <TrayItem :name="$t('move.mouthBench.markers')" last>
      <ToolLine :label="$t('move.mouthBench.markers')">
        <BButton
          size="sm"
          variant="secondary"
          data-test="poses-from-markers"
          :disabled="!markers"
          @click="project.edit({ kind: 'poses_from_markers', clip: id })"
        >
          {{ $t('move.mouthBench.fromMarkers') }}
        </BButton>
        <BButton
          size="sm"
          variant="secondary"
          data-test="markers-from-poses"
          :disabled="!(clip.turns ?? []).length"
          @click="project.edit({ kind: 'markers_from_poses', clip: id })"
        >
          {{ $t('move.mouthBench.toMarkers') }}
        </BButton>
      </ToolLine>
      <p class="tiny quiet mb-0">{{ $t('move.mouthBench.markersHelp') }}</p>
    </TrayItem>
    <TrayItem :name="$t('move.mouthBench.layOut')" last>
      <ToolLine :label="$t('move.mouthBench.layOut')">
        <BButton
          size="sm"
          variant="secondary"
          data-test="lay-out-mouth"
          @click="project.edit({ kind: 'lay_out_mouth', clip: id })"
        >
          {{ $t('move.mouthBench.layOut') }}
        </BButton>
      </ToolLine>
      <p class="tiny quiet mb-0">{{ $t('move.mouthBench.layOutHelp') }}</p>
    </TrayItem>
  </fieldset>
</template>

<style scoped>
.mouth {
  display: grid;
  gap: 8px;
  min-width: 0;
}
</style>
