<script setup lang="ts">
import { useLocalStorage, useMediaQuery } from '@vueuse/core'
import { computed, onBeforeUnmount, provide, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { ServerError } from '@/api/client'
import InHandBar from '@/controls/InHandBar.vue'
import KeySheet from '@/controls/KeySheet.vue'
import SettingsDialog from '@/controls/SettingsDialog.vue'
import { useKeyMap } from '@/controls/useKeyMap'
import { VERBS, type Hands, type Situation, type Verb } from '@/controls/verbs'
import PictureStage from '@/picture/PictureStage.vue'
import { SCREEN } from '@/player/inject'
import { usePlayer } from '@/player/usePlayer'
import type { Source } from '@/player/source'
import { STAGES, stageOf } from '@/stages'
import { useClipboard } from '@/stores/clipboard'
import { useExports } from '@/stores/exports'
import { useHand } from '@/stores/hand'
import { useLibrary } from '@/stores/library'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import TimelineView from '@/timeline/TimelineView.vue'
import { commonKeys, keyOfVerb } from '@/views/keys'
import StageRail from '@/views/StageRail.vue'
import TopBar from '@/views/TopBar.vue'
import { frameTicks, tickOf } from '@/time'

const props = defineProps<{ id: string; stage: string }>()
const router = useRouter()
const project = useProject()
const library = useLibrary()
const films = useExports()
const hand = useHand()
const clipboard = useClipboard()
const notes = useNotes()
const keysShown = ref(false)
const settingsShown = ref(false)
const benchTall = ref(false)
const otherSide = useLocalStorage('velvet-kite.other-side', false)
const isPhone = useMediaQuery('(max-width: 759px)')

const canvas = ref<HTMLCanvasElement | null>(null)
const video = ref<HTMLVideoElement | null>(null)
const source = computed<Source | null>(() =>
  project.document && project.id === props.id
    ? { ...project.source, frames: Math.max(1, project.frames) }
    : null,
)
const player = usePlayer(source, canvas, video, (error) => notes.problem(error))
provide(SCREEN, { player, canvas, video })

const current = computed(() => stageOf(props.stage))
const verbs = computed(() => [...VERBS, ...(current.value.verbs ?? [])])
const layout = computed(() => {
  if (isPhone.value) return benchTall.value ? 'phone tall' : 'phone'
  const shape = project.document?.canvas
  const wide = shape ? shape.width > shape.height * 1.15 : false
  return `${wide ? 'landscape' : 'upright'}${otherSide.value ? ' mirrored' : ''}`
})

watch(
  () => props.id,
  async (id) => {
    library.forget()
    films.forget()
    hand.release()
    try {
      await project.open(id)
      await Promise.all([library.refresh(), films.refresh()])
    } catch (error) {
      notes.problem(error)
      if (error instanceof ServerError && error.status === 404) await router.replace('/')
      if (error instanceof ServerError && error.status === 401) await router.replace('/sign-in')
    }
  },
  { immediate: true },
)
onBeforeUnmount(() => {
  library.forget()
  films.forget()
})

// A refused step was never done: the picture shows again what is.
watch(
  () => project.refusals,
  () => player.tryOut(null),
)

// On a phone the timeline matters in Cut; elsewhere the bench is what one works on.
watch(
  () => current.value,
  (stage) => (benchTall.value = !stage.onTimeline),
  { immediate: true },
)

const now = computed<Situation>(() => ({
  hand: hand.found,
  at: tickOf(player.frame.value, project.rate),
  frame: frameTicks(project.rate),
  tracks: project.tracks,
  inGroup: Boolean(project.within),
  markers: project.markers,
  copied: clipboard.count,
  chosen: library.take,
}))

const hands: Hands = {
  copy(held) {
    if (project.document) clipboard.copy(held, project.tracks, project.document.canvas)
    notes.told(held.length === 1 ? 'Copied.' : `${held.length} clips copied.`)
  },
  paste: (at) => project.edit(clipboard.pasteStep(at)).then(() => library.refresh()),
  takeAll: (ids) => hand.takeAll(ids),
  enter: (group) => goInside(() => project.enter(group)),
  leave: () => goInside(() => project.enter('')),
  takeOut: (clips) => {
    const group = project.within
    const around = project.opened.at(-2) ?? null
    project.edit({ kind: 'take_out', group, clips, within: around })
  },
  giveSettings: () => (settingsShown.value = true),
  keepFrame: () => library.keepFrame(player.frame.value),
}

/** The playhead begins anew where another timeline is shown. */
function goInside(go: () => void) {
  if (player.playing.value) player.pause()
  hand.release()
  go()
  player.seek(0)
}

function doVerb(verb: Verb) {
  if (!verb.shown(now.value) || !verb.ready(now.value)) return
  if (verb.step) project.edit(verb.step(now.value))
  else verb.act?.(now.value, hands)
}

function takeEverything() {
  hand.takeAll(project.tracks.flatMap((track) => track.clips.map((clip) => clip.id ?? '')))
}

function putDown() {
  if (hand.ids.length) hand.release()
  else if (project.within) hands.leave()
}

const common = commonKeys({
  toggle: () => player.toggle(),
  step: (by) => player.step(by),
  shuttle: (way) => player.shuttle(way),
  pause: () => player.pause(),
  toStart: () => player.seek(0),
  toEnd: () => player.seek(player.last.value),
  undo,
  redo,
  takeEverything,
  putDown,
  help: () => (keysShown.value = true),
})
const bound = (verb: Verb) => keyOfVerb(verb, () => doVerb(verb))
const bindings = computed(() => [
  ...common,
  ...verbs.value.map(bound),
  ...(current.value.keys?.() ?? []),
])
useKeyMap(() => bindings.value)

/** All keys there are, for the help: those of every stage. */
const keyGroups = [
  { name: 'Anywhere', keys: common },
  { name: 'With clips', keys: VERBS.map(bound) },
  ...STAGES.map((stage) => ({
    name: `In ${stage.name}`,
    keys: [...(stage.verbs ?? []).map(bound), ...(stage.keys?.() ?? [])],
  })).filter((group) => group.keys.length),
]

function undo() {
  if (project.canUndo || project.waiting) project.undo()
}

function redo() {
  if (project.canRedo) project.redo()
}
</script>

<template>
  <div class="studio" :class="layout">
    <StageRail
      :stage="stage"
      :project-id="id"
      @keys="keysShown = true"
      @flip="otherSide = !otherSide"
    />
    <TopBar :project-id="id" />
    <main class="bench" :aria-label="current.name">
      <button
        v-if="isPhone"
        class="pull"
        :aria-expanded="benchTall"
        :aria-label="benchTall ? 'Make the bench smaller' : 'Make the bench larger'"
        @click="benchTall = !benchTall"
      >
        <span />
      </button>
      <component :is="current.bench" v-if="project.document" />
      <div v-else class="empty">Opening the project</div>
    </main>
    <InHandBar class="hand" :now="now" :verbs="verbs" @verb="doVerb" />
    <TimelineView class="time" />
    <PictureStage class="picture" :overlay="current.overlay" />
    <SettingsDialog v-model="settingsShown" />
    <KeySheet v-model="keysShown" :groups="keyGroups" />
  </div>
</template>

<style scoped>
.studio {
  height: 100dvh;
  display: grid;
  overflow: hidden;
  background: var(--page);
}
.rail {
  grid-area: rail;
}
.top {
  grid-area: top;
}
.bench {
  grid-area: bench;
  min-height: 0;
  min-width: 0;
  display: grid;
  position: relative;
}
.hand {
  grid-area: hand;
  min-width: 0;
}
.time {
  grid-area: time;
}
.picture {
  grid-area: picture;
}
.upright {
  grid-template:
    'rail top picture' 52px
    'rail bench picture' minmax(0, 1fr)
    'rail hand picture' auto
    'rail time picture' minmax(220px, 34%) / 72px minmax(0, 1fr) minmax(260px, min(33vw, 48dvh));
}
.upright.mirrored {
  grid-template:
    'picture top rail' 52px
    'picture bench rail' minmax(0, 1fr)
    'picture hand rail' auto
    'picture time rail' minmax(220px, 34%) / minmax(260px, min(33vw, 48dvh)) minmax(0, 1fr) 72px;
}
.landscape {
  grid-template:
    'rail top top' 52px
    'rail bench picture' minmax(0, 1fr)
    'rail hand hand' auto
    'rail time time' minmax(200px, 33%) / 72px minmax(0, 0.9fr) minmax(0, 1.1fr);
}
.landscape.mirrored {
  grid-template:
    'top top rail' 52px
    'picture bench rail' minmax(0, 1fr)
    'hand hand rail' auto
    'time time rail' minmax(200px, 33%) / minmax(0, 1.1fr) minmax(0, 0.9fr) 72px;
}
.phone {
  grid-template:
    'top' 46px
    'picture' minmax(0, 1fr)
    'hand' auto
    'time' 172px
    'bench' 150px
    'rail' auto / minmax(0, 1fr);
}
.phone.tall {
  grid-template:
    'top' 46px
    'picture' minmax(0, 1fr)
    'hand' auto
    'time' 0
    'bench' 52dvh
    'rail' auto / minmax(0, 1fr);
}
.phone.tall .time {
  visibility: hidden;
}
.pull {
  position: absolute;
  top: 0;
  left: 50%;
  transform: translateX(-50%);
  width: 120px;
  height: 22px;
  border: 0;
  background: none;
  z-index: 3;
}
.pull span {
  display: block;
  margin: 0 auto;
  width: 44px;
  height: 4px;
  border-radius: 2px;
  background: #6d6873;
}
</style>
