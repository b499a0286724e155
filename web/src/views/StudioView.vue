<script setup lang="ts">
import { useEventListener, useLocalStorage, useMediaQuery } from '@vueuse/core'
import { computed, onBeforeUnmount, provide, ref, watch, type Component } from 'vue'
import { useRouter } from 'vue-router'
import { ServerError } from '@/api/client'
import InHandBar from '@/controls/InHandBar.vue'
import KeySheet from '@/controls/KeySheet.vue'
import SettingsDialog from '@/controls/SettingsDialog.vue'
import { isTyping, keyName, type Shortcut } from '@/controls/keys'
import { VERBS, type Hands, type Situation, type Verb } from '@/controls/verbs'
import PictureStage from '@/picture/PictureStage.vue'
import { SCREEN } from '@/player/inject'
import { usePlayer } from '@/player/usePlayer'
import type { Source } from '@/player/source'
import type { Stage } from '@/router'
import CutBench from '@/stages/cut/CutBench.vue'
import GatherBench from '@/stages/gather/GatherBench.vue'
import GradeBench from '@/stages/grade/GradeBench.vue'
import LayerBench from '@/stages/layer/LayerBench.vue'
import MoveBench from '@/stages/move/MoveBench.vue'
import SendBench from '@/stages/send/SendBench.vue'
import { useClipboard } from '@/stores/clipboard'
import { useExports } from '@/stores/exports'
import { useHand } from '@/stores/hand'
import { useLibrary } from '@/stores/library'
import { useMoving } from '@/stores/moving'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import TimelineView from '@/timeline/TimelineView.vue'
import StageRail from '@/views/StageRail.vue'
import TopBar from '@/views/TopBar.vue'
import { frameTicks, tickOf } from '@/time'

const props = defineProps<{ id: string; stage: Stage }>()
const router = useRouter()
const project = useProject()
const library = useLibrary()
const films = useExports()
const hand = useHand()
const moving = useMoving()
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

const BENCHES: Record<Stage, Component> = {
  gather: GatherBench,
  cut: CutBench,
  grade: GradeBench,
  layer: LayerBench,
  move: MoveBench,
  send: SendBench,
}
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

// On a phone the timeline matters in Cut; elsewhere the bench is what one works on.
watch(
  () => props.stage,
  (stage) => (benchTall.value = stage !== 'cut'),
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
    clipboard.copy(held, project.tracks)
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

const shortcuts: Shortcut[] = [
  { key: 'space', label: 'Play or pause', run: () => player.toggle() },
  { key: 'arrowleft', label: 'One frame back', run: () => player.step(-1) },
  { key: 'arrowright', label: 'One frame on', run: () => player.step(1) },
  { key: 'shift+arrowleft', label: 'Ten frames back', run: () => player.step(-10) },
  { key: 'shift+arrowright', label: 'Ten frames on', run: () => player.step(10) },
  { key: 'x', label: 'Play backwards; again: faster', run: () => player.shuttle(-1) },
  { key: 'c', label: 'Stop', run: () => player.pause() },
  { key: 'v', label: 'Play forwards; again: faster', run: () => player.shuttle(1) },
  { key: 'home', label: 'To the beginning', run: () => player.seek(0) },
  { key: 'end', label: 'To the end', run: () => player.seek(player.last.value) },
  ...VERBS.map((verb) => ({
    key: verb.key,
    label: `${verb.label}: ${verb.help.charAt(0).toLowerCase()}${verb.help.slice(1)}`,
    run: () => doVerb(verb),
  })),
  {
    key: 'ctrl+z',
    label: 'Undo',
    run: () => (project.canUndo || project.waiting) && project.undo(),
  },
  { key: 'ctrl+shift+z', label: 'Do again', run: () => project.canRedo && project.redo() },
  { key: 'ctrl+a', label: 'Take all clips in hand', run: takeEverything },
  { key: 'esc', label: 'Put down what is in hand; then close the group', run: putDown },
  {
    key: 'shift+k',
    label: 'Move: set or remove a key at the playhead',
    run: () => moving.ask('key'),
  },
  { key: ',', label: 'Move: to the key before', run: () => moving.ask('before') },
  { key: '.', label: 'Move: to the next key', run: () => moving.ask('next') },
  { key: '?', label: 'This list', run: () => (keysShown.value = true) },
]

useEventListener(window, 'keydown', (event: KeyboardEvent) => {
  const key = keyName(event)
  const found = shortcuts.find((one) => one.key === key)
  if (!found || isTyping(event.target, key)) return
  event.preventDefault()
  found.run()
})
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
    <main class="bench" :aria-label="stage">
      <button
        v-if="isPhone"
        class="pull"
        :aria-expanded="benchTall"
        :aria-label="benchTall ? 'Make the bench smaller' : 'Make the bench larger'"
        @click="benchTall = !benchTall"
      >
        <span />
      </button>
      <component :is="BENCHES[stage]" v-if="project.document" />
      <div v-else class="empty">Opening the project</div>
    </main>
    <InHandBar class="hand" :now="now" @verb="doVerb" />
    <TimelineView class="time" />
    <PictureStage class="picture" :stage="stage" />
    <SettingsDialog v-model="settingsShown" />
    <KeySheet v-model="keysShown" :shortcuts="shortcuts" />
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
