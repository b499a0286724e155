<script setup lang="ts">
import { useLocalStorage, useTitle } from '@vueuse/core'
import { computed, onBeforeUnmount, provide, ref, toRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { ServerError } from '@/api/client'
import InHandBar from '@/controls/InHandBar.vue'
import KeySheet from '@/controls/KeySheet.vue'
import PartBoundary from '@/controls/PartBoundary.vue'
import SettingsDialog from '@/controls/SettingsDialog.vue'
import { useSnapping } from '@/controls/useSnapping'
import { useKeyMap } from '@/controls/useKeyMap'
import { bound } from '@/controls/ownKeys'
import { useOwnKeys } from '@/controls/useOwnKeys'
import PictureStage from '@/picture/PictureStage.vue'
import { SCREEN } from '@/player/inject'
import { usePlayer } from '@/player/usePlayer'
import type { Source } from '@/player/source'
import { stageOf } from '@/stages'
import { useAngles } from '@/stores/angles'
import { useExports } from '@/stores/exports'
import { usePosts } from '@/stores/posts'
import { useHand } from '@/stores/hand'
import { useLibrary } from '@/stores/library'
import { useNotes } from '@/stores/notes'
import { usePage } from '@/stores/page'
import { useProject } from '@/stores/project'
import { useSending } from '@/stores/sending'
import { useViewing } from '@/stores/viewing'
import { t } from '@/texts'
import TimelineView from '@/timeline/TimelineView.vue'
import TimeStrip from '@/timeline/TimeStrip.vue'
import { keyGroups } from '@/views/keys'
import StageRail from '@/views/StageRail.vue'
import TopBar from '@/views/TopBar.vue'
import { usePhoneLayout } from '@/views/usePhoneLayout'
import { useLandmarks } from '@/views/useLandmarks'
import { useVerbs } from '@/views/useVerbs'

const props = defineProps<{ id: string; stage: string }>()
const router = useRouter()
const project = useProject()
const library = useLibrary()
const films = useExports()
const posts = usePosts()
const sending = useSending()
const hand = useHand()
const angles = useAngles()
const notes = useNotes()
const asked = usePage()
const snapping = useSnapping()
const own = useOwnKeys()
const keysShown = ref(false)
const settingsShown = ref(false)
const otherSide = useLocalStorage('velvet-kite.other-side', false)

const canvas = ref<HTMLCanvasElement | null>(null)
const video = ref<HTMLVideoElement | null>(null)
const source = computed<Source | null>(() =>
  project.document && project.id === props.id
    ? {
        ...project.source,
        query: { ...project.look, ...angles.look },
        frames: Math.max(1, project.frames),
      }
    : null,
)
const player = usePlayer(source, canvas, video, (error) => notes.problem(error), {
  behind: true,
  loop: toRef(useViewing(), 'loop'),
})
provide(SCREEN, { player, canvas, video })

const current = computed(() => stageOf(props.stage))
useTitle(() =>
  [project.name, current.value.name, t('words.velvetKite')].filter(Boolean).join(' · '),
)
const desk = useVerbs(
  player,
  computed(() => current.value.verbs ?? []),
  () => (settingsShown.value = true),
)

const shape = computed(() => project.document?.canvas)
const { phone, lying, layout: shared } = usePhoneLayout(toRef(angles, 'shape'))
const layout = computed(() => {
  const wide = shape.value ? shape.value.width > shape.value.height * 1.15 : false
  const page = phone.value
    ? `handheld ${lying.value ? 'lying' : 'standing'}${asked.whole ? ' whole' : timeOpen.value ? ' open' : ''}`
    : wide
      ? 'landscape'
      : 'upright'
  return `${page}${otherSide.value ? ' mirrored' : ''}`
})

/** On a phone: in which stages the whole timeline is open in place of the tools. */
const opened = ref<Record<string, boolean>>({})
const timeOpen = computed({
  get: () => opened.value[props.stage] ?? false,
  set: (open) => (opened.value = { ...opened.value, [props.stage]: open }),
})

watch(
  () => props.id,
  async (id) => {
    library.forget()
    films.forget()
    posts.forget()
    sending.forget()
    hand.release()
    try {
      await project.open(id)
      await Promise.all([library.refresh(), films.refresh(), posts.refresh()])
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
  posts.forget()
  sending.forget()
})

// A refused step was never done: the picture shows again what is.
watch(
  () => project.refusals,
  () => player.tryOut(null),
)

const groups = keyGroups(desk.act, {
  toggle: () => player.toggle(),
  step: (by) => player.step(by),
  shuttle: (way) => player.shuttle(way),
  pause: () => player.pause(),
  toStart: () => player.seek(0),
  toEnd: () => player.seek(player.end.value),
  ...useLandmarks(player),
  undo,
  redo,
  takeEverything: desk.takeEverything,
  putDown: desk.putDown,
  snapping: switchSnapping,
  help: () => (keysShown.value = true),
})
useKeyMap(() =>
  groups
    .filter((group) => group.everywhere || group.id === current.value.id)
    .flatMap((group) => bound(own.keys.value, group, own.singles.value)),
)

function switchSnapping() {
  snapping.on.value = !snapping.on.value
  notes.told(
    snapping.on.value ? t('views.studioView.snappingIsOn') : t('views.studioView.snappingIsOff'),
  )
}

function undo() {
  if (project.canUndo || project.waiting) project.undo()
}

function redo() {
  if (project.canRedo) project.redo()
}
</script>

<template>
  <div class="studio" :class="layout" :style="{ '--picture': `${shared.picture}px` }">
    <StageRail
      :stage="stage"
      :project-id="id"
      @keys="keysShown = true"
      @flip="otherSide = !otherSide"
    />
    <h1 class="visually-hidden">{{ project.name }}</h1>
    <TopBar :project-id="id" @flip="otherSide = !otherSide" @keys="keysShown = true" />
    <main class="bench" :aria-label="current.name">
      <h2 class="visually-hidden">{{ current.name }}</h2>
      <PartBoundary v-if="project.document" :key="current.id" :name="current.name">
        <component :is="current.bench" />
      </PartBoundary>
      <div v-else class="empty">{{ $t('views.studioView.openingTheProject') }}</div>
    </main>
    <InHandBar class="hand" />
    <div class="time">
      <h2 class="visually-hidden">{{ $t('views.studioView.theTimeline') }}</h2>
      <PartBoundary :name="$t('views.studioView.theTimeline')">
        <TimeStrip v-if="phone && !timeOpen" @open="timeOpen = true" />
        <TimelineView v-else @close="timeOpen = false" />
      </PartBoundary>
    </div>
    <PictureStage
      class="picture"
      :overlay="current.overlay"
      :side="phone ? current.side : undefined"
      :band="current.band"
      :beside="phone && shared.beside"
      :mirrored="otherSide"
    />
    <SettingsDialog v-model="settingsShown" />
    <KeySheet v-model="keysShown" :groups="groups" />
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
  display: grid;
  grid: minmax(0, 1fr) / minmax(0, 1fr);
  min-height: 0;
  min-width: 0;
}
.picture {
  grid-area: picture;
}
.upright {
  --upright: minmax(260px, min(33vw, 48dvh));
  grid-template:
    'rail top picture' 52px
    'rail bench picture' minmax(0, 1fr)
    'rail hand picture' auto
    'rail time picture' minmax(220px, 34%) / 72px minmax(0, 1fr) var(--upright);
}
.upright.mirrored {
  grid-template:
    'picture top rail' 52px
    'picture bench rail' minmax(0, 1fr)
    'picture hand rail' auto
    'picture time rail' minmax(220px, 34%) / var(--upright) minmax(0, 1fr) 72px;
}
@media (max-aspect-ratio: 1/1) {
  .upright {
    --upright: minmax(260px, 44vw);
    grid-template-areas: 'rail top top' 'rail bench picture' 'rail hand picture' 'rail time picture';
  }
  .upright.mirrored {
    grid-template-areas: 'top top rail' 'picture bench rail' 'picture hand rail' 'picture time rail';
  }
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
/* An upright tablet has more height than width to give to a wide picture. */
@media (max-aspect-ratio: 1/1) {
  .landscape {
    grid-template:
      'rail top' 52px
      'rail picture' 40dvh
      'rail bench' minmax(0, 1fr)
      'rail hand' auto
      'rail time' 22dvh / 72px minmax(0, 1fr);
  }
  .landscape.mirrored {
    grid-template:
      'top rail' 52px
      'picture rail' 40dvh
      'bench rail' minmax(0, 1fr)
      'hand rail' auto
      'time rail' 22dvh / minmax(0, 1fr) 72px;
  }
}
.standing {
  grid-template:
    'top' 44px
    'picture' var(--picture)
    'time' 50px
    'hand' auto
    'bench' minmax(0, 1fr)
    'rail' auto / minmax(0, 1fr);
}
.standing.open {
  grid-template:
    'top' 44px
    'picture' var(--picture)
    'time' minmax(0, 1fr)
    'hand' auto
    'rail' auto / minmax(0, 1fr);
}
.handheld.open .bench {
  display: none;
}
/* On a low page what is in hand is seen in the strip; its verbs stand at the strip's end. */
@media (max-height: 720px) {
  .standing:not(.open) {
    grid-template:
      'top top' 44px
      'picture picture' var(--picture)
      'time hand' 50px
      'bench bench' minmax(0, 1fr)
      'rail rail' auto / minmax(0, 1fr) auto;
  }
}
.handheld.whole {
  grid-template:
    'top' 44px
    'bench' minmax(0, 1fr)
    'rail' auto / minmax(0, 1fr);
}
.handheld.lying.whole {
  grid-template:
    'rail top' 44px
    'rail bench' minmax(0, 1fr) / 60px minmax(0, 1fr);
}
.handheld.whole > :is(.picture, .hand, .time) {
  display: none;
}
.lying {
  grid-template:
    'rail picture top' 44px
    'rail picture bench' minmax(0, 1fr)
    'rail picture hand' auto
    'rail picture time' 46px / 60px var(--picture) minmax(0, 1fr);
  padding-right: env(safe-area-inset-right);
}
.lying.open {
  grid-template:
    'rail picture top' 44px
    'rail picture hand' auto
    'rail picture time' minmax(0, 1fr) / 60px var(--picture) minmax(0, 1fr);
}
.lying.mirrored {
  grid-template:
    'top picture rail' 44px
    'bench picture rail' minmax(0, 1fr)
    'hand picture rail' auto
    'time picture rail' 46px / minmax(0, 1fr) var(--picture) 60px;
}
.lying.mirrored.open {
  grid-template:
    'top picture rail' 44px
    'hand picture rail' auto
    'time picture rail' minmax(0, 1fr) / minmax(0, 1fr) var(--picture) 60px;
}
</style>
