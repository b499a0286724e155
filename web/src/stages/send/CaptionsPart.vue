<script setup lang="ts">
/** Captions: from a file or typed, timed by taps while it plays, written to files. */
import { BButton } from 'bootstrap-vue-next'
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import type { Step, TextClip } from '@/api/types'
import NumberBox from '@/controls/NumberBox.vue'
import { saidOtherwise } from '@/motion/said'
import { useScreen } from '@/player/inject'
import { useHand } from '@/stores/hand'
import { useKit } from '@/stores/kit'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { useSending } from '@/stores/sending'
import { t } from '@/texts'
import { TICKS_PER_SECOND } from '@/api/types'
import { tickOf } from '@/time'
import CaptionRow from './CaptionRow.vue'
import LitWords from './LitWords.vue'
import WordsDialog from './WordsDialog.vue'
import { captionAt, captionTrack, firstWords, isText } from './captions'

const project = useProject()
const hand = useHand()
const kit = useKit()
const notes = useNotes()
const sending = useSending()
const { player } = useScreen()

const track = computed(() => captionTrack(project.tracks))
const captions = computed(() => (track.value?.clips ?? []).filter(isText))
const here = () => tickOf(player.frame.value, project.rate)
const now = computed(() => {
  const found = captionAt(captions.value, here())
  return found && (found.start ?? 0) <= here() ? found : null
})
const takenId = ref('')
const taken = computed(() => captions.value.find((one) => one.id === takenId.value) ?? null)
const cursor = ref(0)
const fromWords = ref(false)
const file = ref<HTMLInputElement | null>(null)

const edit = (step: Record<string, unknown>) => project.edit(step as unknown as Step)
const of = (caption: TextClip) => ({ clip: caption.id ?? '' })

function take(caption: TextClip) {
  takenId.value = caption.id ?? ''
  hand.take(takenId.value)
  player.seek(Math.floor(((caption.start ?? 0) / TICKS_PER_SECOND) * rate.value))
}
const rate = computed(() => project.rate.num / project.rate.den)

async function open(event: Event) {
  const input = event.target as HTMLInputElement
  const [given] = input.files ?? []
  input.value = ''
  if (!given) return
  try {
    const { cues, remarks } = await kit.readCaptions(given)
    await edit({ kind: 'lay_captions', cues, track: track.value?.id ?? null })
    notes.told([t('send.captionsPart.laid', {}, cues.length), ...(remarks ?? [])].join(' '))
  } catch (error) {
    notes.problem(error)
  }
}

const add = () => edit({ kind: 'add_caption', at: here(), text: t('send.captionsPart.fresh') })
const say = (caption: TextClip, text: string) =>
  edit({
    kind: 'adjust',
    clips: [caption.id],
    values: { text, name: text.slice(0, 60), ...saidOtherwise(caption, firstWords(caption), text) },
  })

/** The caption in hand begins now, and the next one is taken in hand. */
async function tap() {
  const caption = taken.value ?? captionAt(captions.value, here())
  if (!caption) return
  const after = captions.value[captions.value.indexOf(caption) + 1]
  takenId.value = after?.id ?? ''
  await edit({ kind: 'begin_caption', ...of(caption), at: here() })
}
onMounted(() => (sending.beginCaption = tap))
onBeforeUnmount(() => (sending.beginCaption = null))
const endHere = (caption: TextClip) =>
  edit({ kind: 'time_caption', ...of(caption), at: caption.start ?? 0, until: here() })
const split = (caption: TextClip) => {
  const text = firstWords(caption)
  const middle = text.indexOf(' ', text.length / 2)
  const at = cursor.value > 0 && cursor.value < text.length ? cursor.value : middle
  return edit({ kind: 'split_caption', ...of(caption), at_letter: Math.max(1, at) })
}
const shift = (seconds: number) =>
  edit({
    kind: 'retime_captions',
    track: track.value?.id,
    by: Math.round(seconds * TICKS_PER_SECOND),
  })
const stretch = (percent: number) =>
  edit({
    kind: 'retime_captions',
    track: track.value?.id,
    factor: percent / 100,
    about: captions.value[0]?.start ?? 0,
  })
const takeAll = () => hand.takeAll(captions.value.map((one) => one.id ?? ''))
const url = (format: 'srt' | 'vtt') => `/api/projects/${project.id}/captions/${format}`
</script>

<template>
  <section class="captions" :aria-label="$t('send.sendBench.captions')">
    <div class="tools">
      <BButton variant="secondary" size="sm" data-test="open-captions" @click="file?.click()">
        {{ $t('send.captionsPart.open') }}
      </BButton>
      <input
        ref="file"
        type="file"
        hidden
        accept=".srt,.vtt,text/vtt,application/x-subrip"
        :aria-label="$t('send.captionsPart.open')"
        data-test="captions-file"
        @change="open"
      />
      <BButton
        variant="secondary"
        size="sm"
        data-test="captions-from-words"
        @click="fromWords = true"
      >
        {{ $t('send.captionsPart.words') }}
      </BButton>
      <BButton variant="secondary" size="sm" data-test="add-caption" @click="add">
        {{ $t('send.captionsPart.add') }}
      </BButton>
      <template v-if="captions.length">
        <BButton
          variant="primary"
          size="sm"
          :title="$t('send.captionsPart.tapHelp')"
          data-test="tap-caption"
          @click="tap"
        >
          {{ $t('send.captionsPart.tap') }}
        </BButton>
        <span class="grow" />
        <a class="btn btn-secondary btn-sm" :href="url('srt')" download data-test="captions-srt">
          {{ $t('send.captionsPart.srt') }}
        </a>
        <a class="btn btn-secondary btn-sm" :href="url('vtt')" download data-test="captions-vtt">
          {{ $t('send.captionsPart.vtt') }}
        </a>
      </template>
    </div>
    <WordsDialog
      v-if="fromWords"
      v-model="fromWords"
      :track="track?.id ?? null"
      :said="captions.map(firstWords).join('\n')"
    />
    <div v-if="!captions.length" class="empty">
      <strong>{{ $t('send.captionsPart.none') }}</strong>
      <span>{{ $t('send.captionsPart.noneHelp') }}</span>
    </div>
    <template v-else>
      <div v-if="taken" class="tools" data-test="caption-tools">
        <BButton variant="secondary" size="sm" data-test="end-caption" @click="endHere(taken)">
          {{ $t('send.captionsPart.endHere') }}
        </BButton>
        <BButton variant="secondary" size="sm" data-test="split-caption" @click="split(taken)">
          {{ $t('send.captionsPart.split') }}
        </BButton>
        <BButton
          variant="secondary"
          size="sm"
          data-test="merge-captions"
          @click="edit({ kind: 'merge_captions', ...of(taken) })"
        >
          {{ $t('send.captionsPart.merge') }}
        </BButton>
        <BButton
          variant="secondary"
          size="sm"
          data-test="remove-caption"
          @click="edit({ kind: 'remove', clips: [taken.id] })"
        >
          {{ $t('send.captionsPart.remove') }}
        </BButton>
      </div>
      <div v-else class="tools">
        <LitWords :captions="captions" />
        <NumberBox
          :label="$t('send.captionsPart.later')"
          :value="0"
          unit="s"
          data-test="captions-later"
          @set="shift"
        />
        <NumberBox
          :label="$t('send.captionsPart.stretch')"
          :value="100"
          unit="%"
          data-test="captions-stretch"
          @set="stretch"
        />
        <BButton variant="secondary" size="sm" data-test="captions-in-hand" @click="takeAll">
          {{ $t('send.captionsPart.inHand') }}
        </BButton>
      </div>
      <ul class="list">
        <CaptionRow
          v-for="one in captions"
          :key="one.id"
          :caption="one"
          :taken="takenId === one.id"
          :now="now?.id === one.id"
          @take="take(one)"
          @release="takenId = ''"
          @say="say(one, $event)"
          @cursor="cursor = $event"
        />
      </ul>
    </template>
  </section>
</template>

<style scoped>
.captions {
  display: flex;
  flex-direction: column;
  gap: 8px;
  min-height: 0;
  height: 100%;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  flex: none;
}
.tools > * {
  flex: none;
}
.tools .grow {
  flex: 1;
}
.tools .btn {
  white-space: nowrap;
  min-height: var(--touch);
  display: inline-flex;
  align-items: center;
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
  align-content: start;
  overflow-y: auto;
  min-height: 0;
  scrollbar-width: thin;
}
.phone .captions {
  overflow-y: auto;
}
.phone .tools {
  flex-wrap: nowrap;
  overflow-x: auto;
  scrollbar-width: none;
}
.phone .list {
  overflow: visible;
}
</style>
