<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { BButton } from 'bootstrap-vue-next'
import IconPause from '~icons/tabler/player-pause-filled'
import IconPlay from '~icons/tabler/player-play-filled'
import { client, need } from '@/api/client'
import { isUnfinished } from '@/jobs/job'
import JobRow from '@/jobs/JobRow.vue'
import { usePhone } from '@/look/phone'
import type { Source } from '@/player/source'
import TransportBar from '@/picture/TransportBar.vue'
import { usePlayer } from '@/player/usePlayer'
import { useLibrary } from '@/stores/library'
import { useNotes } from '@/stores/notes'
import { useUploads } from '@/stores/uploads'
import MarkStrip from './MarkStrip.vue'
import { markedPart, STILL_LENGTH } from '@/takes/placing'
import PlaceVerbs from './PlaceVerbs.vue'
import TakeFacts from './TakeFacts.vue'
import TakeParts from './TakeParts.vue'
import TakeTitle from './TakeTitle.vue'
import { frameTicks, lengthLabel, tickOf } from '@/time'

defineEmits<{ back: [] }>()
const { phone } = usePhone()
const library = useLibrary()
const notes = useNotes()
const uploads = useUploads()
const canvas = ref<HTMLCanvasElement | null>(null)
const video = ref<HTMLVideoElement | null>(null)
const source = shallowRef<Source | null>(null)
const player = usePlayer(source, canvas, video, (error) => notes.problem(error))

const take = computed(() => library.take)
const moves = computed(() => take.value?.facts?.kind !== 'still')
const hasPicture = computed(() => take.value?.facts?.kind !== 'sound')
const usable = computed(() => Boolean(take.value?.facts) && take.value?.state !== 'refused')
const part = computed(() => (take.value ? markedPart(take.value) : { from: 0, to: 0 }))
const length = computed(() => take.value?.facts?.length || STILL_LENGTH)

watch(
  () => (usable.value ? library.chosen : ''),
  async (id) => {
    player.pause()
    source.value = null
    if (!id) return
    try {
      const facts = await need(client.GET('/api/takes/{id}/playing', { params: { path: { id } } }))
      if (library.chosen !== id) return
      const rate = { num: facts.rate_num, den: facts.rate_den }
      source.value = { base: `/api/takes/${id}`, frames: facts.frames, rate }
      player.seek(0)
    } catch (error) {
      notes.problem(error)
    }
  },
  { immediate: true },
)

const tick = computed(() => (source.value ? tickOf(player.frame.value, source.value.rate) : 0))

function seek(to: number) {
  if (source.value) player.seek(to / frameTicks(source.value.rate))
}

function mark(which: 'mark_in' | 'mark_out') {
  const one = take.value
  if (!one || !source.value) return
  if (which === 'mark_in') {
    const out = one.mark_out !== null && one.mark_out <= tick.value ? null : one.mark_out
    library.change(one.id, { mark_in: tick.value, mark_out: out })
  } else {
    const end = tick.value + frameTicks(source.value.rate)
    const begin = one.mark_in !== null && one.mark_in >= end ? null : one.mark_in
    library.change(one.id, { mark_in: begin, mark_out: end })
  }
}

function setMarks(from: number, to: number) {
  if (take.value) library.change(take.value.id, { mark_in: from, mark_out: to })
}

const finder = ref<HTMLInputElement | null>(null)
function found(event: Event) {
  const field = event.target as HTMLInputElement
  if (take.value) uploads.add([...(field.files ?? [])], take.value.id)
  field.value = ''
}
</script>

<template>
  <section class="panel viewer" :aria-label="$t('gather.takeViewer.takeViewer')">
    <div v-if="!take" class="empty">
      <strong>{{ $t('gather.takeViewer.noTakeChosen') }}</strong>
      <span>{{ $t('gather.takeViewer.tapATakeToWatch') }}</span>
    </div>
    <template v-else>
      <TakeTitle :take="take" @back="$emit('back')" />
      <div v-if="take.missing" class="problem" role="alert">
        <strong>{{ $t('gather.takeViewer.theFileOfThisTake') }}</strong>
        <span class="small soft">{{ $t('gather.takeViewer.itsClipsStayOnThe') }}</span>
        <BButton variant="secondary" data-test="find-again" @click="finder?.click()">{{
          $t('gather.takeViewer.findTheFile')
        }}</BButton>
        <input
          ref="finder"
          type="file"
          :aria-label="$t('gather.takeViewer.theFileOfThisTake')"
          hidden
          data-test="found-file"
          @change="found"
        />
      </div>
      <div v-if="take.problem" class="problem" role="alert">
        <strong>{{ take.problem.message }}</strong>
        <span class="small soft">{{ take.problem.safe }} {{ take.problem.todo }}</span>
        <BButton variant="secondary" @click="library.again(take.id)">{{
          $t('words.tryAgain')
        }}</BButton>
      </div>
      <template v-else>
        <div class="body">
          <div class="seen">
            <div class="screen">
              <canvas
                v-show="hasPicture"
                ref="canvas"
                :aria-label="$t('gather.takeViewer.theTakesPicture')"
                data-test="take-still"
              />
              <video
                ref="video"
                playsinline
                :class="{ away: !player.moving.value || !hasPicture }"
              />
              <span v-if="!hasPicture" class="empty small">{{
                $t('gather.takeViewer.soundOnly')
              }}</span>
              <span v-if="!usable" class="empty small">{{
                $t('gather.takeViewer.lookingAtTheFile')
              }}</span>
            </div>
            <TransportBar
              v-if="phone && moves && source"
              upright
              :player="player"
              :frames="usable ? source.frames : 0"
              :rate="source.rate"
            />
          </div>
          <JobRow
            v-if="take.job && isUnfinished(take.job)"
            :job="take.job"
            :title="usable ? $t('gather.takeViewer.usableNow') : $t('gather.takeViewer.takingItIn')"
            @cancel="library.cancel(take)"
          />
          <p v-for="remark in take.facts?.remarks" :key="remark" class="small soft m-0" role="note">
            {{ remark }}
          </p>
          <MarkStrip
            v-if="usable && moves"
            :take="take"
            :length="length"
            :at="tick"
            :from="part.from"
            :to="part.to"
            @seek="seek"
            @mark="setMarks"
          />
          <div v-if="moves" class="line">
            <BButton
              v-if="!phone"
              variant="secondary"
              :disabled="!usable"
              :aria-label="
                player.playing.value
                  ? $t('gather.takeViewer.pauseTheTake')
                  : $t('gather.takeViewer.playTheTake')
              "
              @click="player.toggle()"
            >
              <IconPause v-if="player.playing.value" aria-hidden="true" /><IconPlay
                v-else
                aria-hidden="true"
              />
            </BButton>
            <BButton
              variant="secondary"
              :disabled="!usable"
              data-test="mark-in"
              @click="mark('mark_in')"
              >{{ $t('gather.takeViewer.in') }}</BButton
            >
            <BButton
              variant="secondary"
              :disabled="!usable"
              data-test="mark-out"
              @click="mark('mark_out')"
              >{{ $t('gather.takeViewer.out') }}</BButton
            >
            <BButton
              variant="secondary"
              :disabled="!usable || (take.mark_in === null && take.mark_out === null)"
              :title="$t('gather.takeViewer.keepsTheMarkedPartTo')"
              data-test="keep-part"
              @click="library.keepPart(take)"
            >
              {{ $t('gather.takeViewer.keep') }}
            </BButton>
            <span class="spacer" />
            <span class="fw-semibold" data-test="part-length">{{
              lengthLabel(part.to - part.from)
            }}</span>
          </div>
          <TakeParts v-if="take.ranges.length" :take="take" @seek="seek" />
          <TakeFacts :take="take" />
        </div>
        <PlaceVerbs :take="take" :disabled="!usable" />
      </template>
    </template>
  </section>
</template>

<style scoped>
.viewer,
.body {
  display: flex;
  flex-direction: column;
  gap: 8px;
  min-height: 0;
}
.body {
  flex: 1;
  overflow-y: auto;
  scrollbar-width: thin;
}
.line {
  display: flex;
  align-items: center;
  gap: 6px;
}
.spacer {
  flex: 1;
}
.seen {
  display: grid;
  flex: 1;
  min-height: 96px;
}
.screen {
  position: relative;
  flex: 1;
  min-height: 96px;
  background: var(--neutral);
  border-radius: 8px 8px 2px 8px;
  overflow: hidden;
}
.screen canvas,
.screen video {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  object-fit: contain;
}
.screen .empty {
  position: absolute;
  inset: 0;
}
.away {
  opacity: 0;
}
.problem {
  display: grid;
  gap: 8px;
  justify-items: start;
  border-left: 4px solid #e5534b;
  padding: 4px 0 4px 12px;
}
.phone .viewer {
  border-radius: 0;
  padding: 0 12px 8px;
  gap: 4px;
}
.phone .body {
  gap: 4px;
  margin: 0 -12px;
  padding: 0 12px;
}
.phone .seen {
  flex: 0 0 51dvh;
  grid-template: 'screen bar' minmax(0, 1fr) / minmax(0, 1fr) auto;
  margin: 0 -12px;
  background: var(--neutral);
}
.phone .seen > .bar {
  width: 74px;
}
.phone .screen {
  grid-area: screen;
  border-radius: 0;
}
.phone.lying .body {
  display: grid;
  grid-template-columns: minmax(0, 46%) minmax(0, 1fr);
  grid-auto-rows: min-content;
  column-gap: 12px;
}
.phone.lying .body > * {
  grid-column: 2;
}
.phone.lying .seen {
  grid-column: 1;
  grid-row: 1 / 20;
  height: calc(100dvh - 140px);
  margin: 0 0 0 -12px;
}
</style>
