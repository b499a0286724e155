<script setup lang="ts">
/** Speaking while the timeline plays. Every recording is kept as a take. */
import { BButton, BFormCheckbox } from 'bootstrap-vue-next'
import { useLocalStorage, useRafFn } from '@vueuse/core'
import { computed, onMounted, onScopeDispose, ref, watch } from 'vue'
import { TICKS_PER_SECOND } from '@/api/types'
import ValueField from '@/controls/ValueField.vue'
import { useScreen } from '@/player/inject'
import { useLibrary } from '@/stores/library'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { useUploads } from '@/stores/uploads'
import type { TakePart } from '@/takes/placing'
import { t } from '@/texts'
import { lengthLabel, tickOf } from '@/time'
import { usePhone } from '@/look/phone'
import TrayItem from '@/tray/TrayItem.vue'
import { spokenParts, stallsIn, type SpokenPart } from './voice/parts'
import { useRecorder } from './voice/useRecorder'

const { phone } = usePhone()
const emit = defineEmits<{ done: [] }>()
const project = useProject()
const library = useLibrary()
const uploads = useUploads()
const notes = useNotes()
const { player, video } = useScreen()
const recorder = useRecorder()

const countdown = ref(0)
const quiet = useLocalStorage('velvet-kite.voice-quiet', false)
const correction = useLocalStorage('velvet-kite.voice-correction', 0)
const place = useLocalStorage('velvet-kite.voice-place', true)
let timer = 0

const takes = computed(() =>
  library.takes.filter((take) => take.name.startsWith(t('gather.voiceRecorder.nameOfARecording'))),
)
const filled = computed(() => `${((recorder.level.value + 60) / 60) * 100}%`)

onMounted(() => recorder.open().catch((error: unknown) => notes.problem(error)))
onScopeDispose(() => window.clearInterval(timer))

function begin() {
  if (player.playing.value) player.pause()
  countdown.value = 3
  timer = window.setInterval(() => {
    countdown.value -= 1
    if (countdown.value) return
    window.clearInterval(timer)
    recorder.start()
    if (video.value) video.value.muted = quiet.value
    player.play()
  }, 800)
}

function cancel() {
  window.clearInterval(timer)
  countdown.value = 0
}

// Where the film is while somebody speaks: it may stand still until its next piece has come.
const watching = useRafFn(
  () => video.value && player.moving.value && recorder.mark(video.value.currentTime),
  { immediate: false },
)
watch(recorder.recording, (records) => (records ? watching.resume() : watching.pause()))
watch(
  player.playing,
  (plays) => !plays && recorder.recording.value && !player.starting.value && end(),
)

function end() {
  const made = recorder.stop()
  if (player.playing.value) player.pause()
  if (video.value) video.value.muted = false
  if (!made) {
    notes.told(t('gather.voiceRecorder.nothingWasRecorded'))
    return
  }
  const name = t('gather.voiceRecorder.voiceWav', { count: takes.value.length + 1 })
  const known = new Set(library.takes.map((take) => take.id))
  uploads.add([new File([made.file], name, { type: 'audio/wav' })])
  if (!place.value) return
  const fps = project.rate.num / project.rate.den
  const delay = made.delay + correction.value / 1000
  const parts = spokenParts(made.moments, fps, delay, made.length)
  const stop = watch(
    () => library.takes.find((take) => !known.has(take.id) && take.name === name && take.facts),
    (take) => {
      if (!take) return
      stop()
      lay(take.media, take.facts?.length ?? 0, parts)
    },
  )
}

/** On a sound track, at the frames at which it was said; what was said while the picture stood is left out. */
function lay(media: string, length: number, parts: SpokenPart[]) {
  const [first] = parts
  if (!first) {
    notes.told(t('gather.voiceRecorder.theFilmDidNotRun'))
    return
  }
  const name = t('gather.voiceRecorder.voice')
  const takes = parts.map(({ from, frames }): TakePart => {
    const begin = Math.round(from * TICKS_PER_SECOND)
    const end = Math.min(length, begin + tickOf(frames, project.rate))
    return { media, name, kind: 'sound', length, mark_in: begin, mark_out: end }
  })
  const at = tickOf(first.frame, project.rate)
  project.edit({ kind: 'place_takes', takes, mode: 'above', at })
  const n = stallsIn(parts, project.rate.num / project.rate.den)
  notes.told(
    n
      ? t('gather.voiceRecorder.thePictureStoodStill', { n }, n)
      : t('gather.voiceRecorder.yourVoiceIsOnThe'),
  )
}
</script>

<template>
  <section class="panel voice tray-group" :aria-label="$t('gather.voiceRecorder.voiceRecorder')">
    <div v-if="!phone" class="line">
      <h2>{{ $t('gather.voiceRecorder.voice') }}</h2>
      <span class="spacer" />
      <BButton variant="secondary" @click="emit('done')">{{ $t('words.close') }}</BButton>
    </div>
    <TrayItem :name="$t('gather.voiceRecorder.record')">
      <p v-if="recorder.standIn.value" class="small soft mb-0" role="status">
        {{ $t('gather.voiceRecorder.thereIsNoMicrophoneOr') }}
      </p>
      <div
        class="meter"
        role="meter"
        :aria-label="$t('gather.voiceRecorder.level')"
        :aria-valuenow="Math.round(recorder.level.value)"
        aria-valuemin="-60"
        aria-valuemax="0"
      >
        <span :style="{ width: filled }" :class="{ hot: recorder.level.value > -3 }" />
      </div>
      <div class="line small quiet">
        <span>{{ $t('gather.voiceRecorder.db', { level: recorder.level.value.toFixed(0) }) }}</span>
        <span v-if="recorder.level.value > -3">{{ $t('gather.voiceRecorder.tooLoud') }}</span>
      </div>
      <div class="big">
        <strong v-if="countdown" class="count" aria-live="assertive">{{ countdown }}</strong>
        <BButton v-if="countdown" variant="secondary" @click="cancel">{{
          $t('words.cancel')
        }}</BButton>
        <BButton
          v-else-if="recorder.recording.value"
          variant="danger"
          data-test="voice-stop"
          @click="end"
        >
          {{ $t('gather.voiceRecorder.stop') }}
        </BButton>
        <BButton
          v-else
          variant="primary"
          :disabled="!recorder.ready.value || !project.frames"
          data-test="voice-record"
          @click="begin"
        >
          {{ $t('gather.voiceRecorder.recordFromThePlayhead') }}
        </BButton>
      </div>
    </TrayItem>
    <TrayItem :name="$t('gather.voiceRecorder.meanwhileAndAfter')">
      <BFormCheckbox v-model="quiet" switch>{{
        $t('gather.voiceRecorder.playWithoutSoundMeanwhile')
      }}</BFormCheckbox>
      <BFormCheckbox v-model="place" switch>{{
        $t('gather.voiceRecorder.layItOnTheTimeline')
      }}</BFormCheckbox>
    </TrayItem>
    <ValueField
      :label="$t('gather.voiceRecorder.laterBy')"
      :value="-correction"
      :low="-200"
      :high="200"
      :step="5"
      unit="ms"
      :reset="0"
      @set="correction = -$event"
    />
    <p class="tiny quiet mb-0">
      {{ $t('gather.voiceRecorder.theDelayThatTheBrowser') }}
    </p>
    <TrayItem
      v-if="takes.length"
      :name="$t('gather.voiceRecorder.recorded')"
      :told="String(takes.length)"
    >
      <ul class="kept">
        <li v-for="take in takes" :key="take.id">
          <button type="button" @click="((library.chosen = take.id), emit('done'))">
            {{ take.name }}
            <span class="quiet">{{
              take.facts ? lengthLabel(take.facts.length) : $t('gather.voiceRecorder.arriving')
            }}</span>
          </button>
        </li>
      </ul>
    </TrayItem>
  </section>
</template>

<style scoped>
.voice {
  display: flex;
  flex-direction: column;
  gap: 8px;
  overflow-y: auto;
}
.line {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 6px;
}
.spacer {
  flex: 1;
}
.meter {
  height: 14px;
  border-radius: 7px 7px 2px 7px;
  background: var(--rail);
  overflow: hidden;
}
.meter span {
  display: block;
  height: 100%;
  background: #5cbfae;
}
.meter span.hot {
  background: #e5534b;
}
.big {
  display: grid;
  gap: 6px;
  justify-items: center;
  padding: 6px 0;
}
.count {
  font-size: 44px;
  line-height: 1;
}
.kept {
  list-style: none;
  margin: 0;
  padding: 0;
}
.kept button {
  display: flex;
  justify-content: space-between;
  width: 100%;
  min-height: var(--touch);
  border: 0;
  background: none;
  color: var(--text);
}
.phone .line.small {
  display: none;
}
.phone .big {
  display: flex;
  justify-content: center;
  padding: 0;
}
</style>
