<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useElementSize } from '@vueuse/core'
import IconIn from '~icons/tabler/zoom-in'
import IconOut from '~icons/tabler/zoom-out'
import IconAll from '~icons/tabler/arrow-autofit-width'
import { hasMedia, TICKS_PER_SECOND, type Clip, type Track } from '@/api/types'
import { useScreen } from '@/player/inject'
import { useHand } from '@/stores/hand'
import { useLibrary } from '@/stores/library'
import { endOf, startOf, useProject } from '@/stores/project'
import { LEAST_ZOOM, MOST_ZOOM, scrollAfterZoom, toPx, toTick } from '@/timeline/scale'
import TimelineClip from '@/timeline/TimelineClip.vue'
import TimelineRuler from '@/timeline/TimelineRuler.vue'
import TrackHead from '@/timeline/TrackHead.vue'
import { useDrags } from '@/timeline/useDrags'
import { frameOf, tickOf } from '@/time'

const project = useProject()
const library = useLibrary()
const hand = useHand()
const { player } = useScreen()

const scroller = ref<HTMLElement | null>(null)
const { width: seenWidth } = useElementSize(scroller)
const scroll = ref(0)
const zoom = ref(60)
/** Room before the first frame, so that the playhead's head is seen whole there. */
const LEAD = 12
const HEIGHTS: Record<Track['kind'], number> = { main: 58, picture: 44, sound: 40 }

const headWidth = computed(() => (seenWidth.value < 560 ? 78 : 116))
const laneWidth = computed(() => Math.max(120, seenWidth.value - headWidth.value - LEAD))
const contentWidth = computed(() =>
  Math.max(laneWidth.value, toPx(project.length, zoom.value) + laneWidth.value * 0.6),
)
const view = computed(() => ({ from: scroll.value, to: scroll.value + laneWidth.value }))
const playheadPx = computed(() => toPx(tickOf(player.frame.value, project.rate), zoom.value))

/** From the front to the back, then what is heard. */
const rows = computed(() => {
  const pictures = project.tracks.filter((track) => track.kind !== 'sound').reverse()
  return [...pictures, ...project.tracks.filter((track) => track.kind === 'sound')]
})

function trackAt(y: number): Track | null {
  for (const row of scroller.value?.querySelectorAll<HTMLElement>('[data-track]') ?? []) {
    const box = row.getBoundingClientRect()
    if (y >= box.top && y < box.bottom) {
      return rows.value.find((track) => track.id === row.dataset.track) ?? null
    }
  }
  return null
}

const drags = useDrags(zoom, player, trackAt)

interface Shown {
  clip: Clip
  left: number
  width: number
}

/** The clips of a row that can be seen, where they are drawn; a dragged one where it is dragged. */
function shown(track: Track): Shown[] {
  const draft = drags.draft.value
  const from = toTick(view.value.from - 300, zoom.value)
  const to = toTick(view.value.to + 300, zoom.value)
  const found: Shown[] = []
  for (const clip of track.clips) {
    const mine = draft?.id === clip.id ? draft : null
    if (mine?.track && mine.track !== track.id) continue
    const start = mine?.start ?? startOf(clip)
    const end = mine?.end ?? endOf(clip)
    if (end < from) continue
    if (start > to && !mine) break
    found.push(placed(clip, start, end))
  }
  if (draft && draft.track === track.id && !found.some(({ clip }) => clip.id === draft.id)) {
    const moved = project.findClip(draft.id)
    if (moved) found.push(placed(moved.clip, draft.start, draft.end))
  }
  return found
}

function placed(clip: Clip, start: number, end: number): Shown {
  const left = toPx(start, zoom.value)
  return { clip, left, width: Math.max(3, toPx(end, zoom.value) - left) }
}

function takeOf(clip: Clip) {
  return hasMedia(clip) ? library.byMedia.get(clip.media) : undefined
}

function isMissing(clip: Clip): boolean {
  if (!library.loaded || !hasMedia(clip)) return false
  const take = takeOf(clip)
  return !take || take.state === 'refused' || !take.facts
}

// Pressing, dragging, tapping

let pressed: { clip: Clip | null; x: number; y: number; touch: boolean } | null = null
let pinch = 0

function clipUnder(target: EventTarget | null): { clip: Clip; track: Track } | null {
  const id = (target as HTMLElement | null)?.closest<HTMLElement>('[data-clip]')?.dataset.clip
  return id ? project.findClip(id) : null
}

function down(event: PointerEvent) {
  const found = clipUnder(event.target)
  pressed = {
    clip: found?.clip ?? null,
    x: event.clientX,
    y: event.clientY,
    touch: event.pointerType === 'touch',
  }
  if (!found) return
  const edge = (event.target as HTMLElement).dataset.edge as 'start' | 'end' | undefined
  if (edge || event.pointerType !== 'touch') {
    ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  }
  drags.down(event, found.clip, found.track, edge ?? null)
}

function up(event: PointerEvent) {
  const dragged = drags.up()
  const still = pressed && Math.hypot(event.clientX - pressed.x, event.clientY - pressed.y) < 8
  if (!dragged && pressed && still) tap(event, pressed.clip)
  pressed = null
}

function tap(event: PointerEvent, clip: Clip | null) {
  if (clip) {
    hand.take(clip.id ?? '', event.shiftKey || event.ctrlKey || event.metaKey)
    return
  }
  hand.release()
  seekTo(event.clientX)
}

function onClipKey(event: KeyboardEvent) {
  const found = clipUnder(event.target)
  if (!found || (event.key !== 'Enter' && event.key !== ' ')) return
  event.preventDefault()
  event.stopPropagation()
  hand.take(found.clip.id ?? '', event.shiftKey)
}

function seekTo(clientX: number) {
  const box = scroller.value?.getBoundingClientRect()
  if (!box) return
  const px = clientX - box.left - headWidth.value - LEAD + scroll.value
  player.seek(frameOf(toTick(Math.max(0, px), zoom.value), project.rate))
}

const scrubbing = ref(false)
function scrubTo(px: number | null) {
  scrubbing.value = px !== null
  if (px !== null) player.seek(frameOf(toTick(Math.max(0, px), zoom.value), project.rate))
}

// Zooming and scrolling

function zoomBy(factor: number, pointer = laneWidth.value / 2) {
  const to = Math.min(MOST_ZOOM, Math.max(LEAST_ZOOM, zoom.value * factor))
  const target = scrollAfterZoom(scroll.value, pointer, to / zoom.value)
  zoom.value = to
  nextTick(() => {
    if (scroller.value) scroller.value.scrollLeft = target
    scroll.value = target
  })
}

function showAll() {
  const seconds = project.length / TICKS_PER_SECOND
  zoom.value = seconds ? Math.min(240, Math.max(LEAST_ZOOM, (laneWidth.value - 24) / seconds)) : 60
  if (scroller.value) scroller.value.scrollLeft = 0
}

function wheel(event: WheelEvent) {
  if (!event.ctrlKey && !event.metaKey) return
  event.preventDefault()
  const box = scroller.value?.getBoundingClientRect()
  zoomBy(Math.exp(-event.deltaY / 240), event.clientX - (box?.left ?? 0) - headWidth.value - LEAD)
}

/** Two fingers zoom; a lifted clip keeps the page from scrolling under it. */
function touchMove(event: TouchEvent) {
  if (drags.isLifted()) {
    event.preventDefault()
    return
  }
  const [a, b] = [event.touches[0], event.touches[1]]
  if (!a || !b) {
    pinch = 0
    return
  }
  event.preventDefault()
  drags.forget()
  pressed = null
  const apart = Math.hypot(a.clientX - b.clientX, a.clientY - b.clientY)
  const box = scroller.value?.getBoundingClientRect()
  const middle = (a.clientX + b.clientX) / 2 - (box?.left ?? 0) - headWidth.value - LEAD
  if (pinch) zoomBy(apart / pinch, middle)
  pinch = apart
}

function onScroll() {
  scroll.value = scroller.value?.scrollLeft ?? 0
}

onMounted(() => {
  scroller.value?.addEventListener('touchmove', touchMove, { passive: false })
  scroller.value?.addEventListener('touchend', () => (pinch = 0))
})
onBeforeUnmount(() => scroller.value?.removeEventListener('touchmove', touchMove))

watch([() => project.id, () => laneWidth.value > 200], () => showAll(), { immediate: true })

// While playing, and when stepped out of sight, the playhead is brought back into view.
watch(playheadPx, (px) => {
  const { from, to } = view.value
  if (scrubbing.value || drags.active.value || (px >= from && px <= to - 24)) return
  const target = Math.max(0, px - laneWidth.value * 0.2)
  if (scroller.value) scroller.value.scrollLeft = target
})
</script>

<template>
  <section class="timeline" aria-label="Timeline">
    <div ref="scroller" class="scroller" @scroll.passive="onScroll" @wheel="wheel">
      <div class="inner" :style="{ width: `${headWidth + LEAD + contentWidth}px` }">
        <div class="ruler-row">
          <div class="corner" :style="{ width: `${headWidth}px` }">
            <button class="btn btn-bare" aria-label="Zoom out" @click="zoomBy(1 / 1.5)">
              <IconOut aria-hidden="true" />
            </button>
            <button class="btn btn-bare" aria-label="Zoom in" @click="zoomBy(1.5)">
              <IconIn aria-hidden="true" />
            </button>
            <button
              v-if="headWidth > 100"
              class="btn btn-bare"
              aria-label="Show all"
              title="Show all"
              @click="showAll"
            >
              <IconAll aria-hidden="true" />
            </button>
          </div>
          <TimelineRuler :view="view" :zoom="zoom" :playhead="playheadPx" @scrub="scrubTo" />
        </div>
        <div
          class="rows"
          role="listbox"
          aria-label="Clips"
          aria-multiselectable="true"
          @pointerdown="down"
          @pointermove="drags.move"
          @pointerup="up"
          @pointercancel="drags.forget()"
          @keydown="onClipKey"
        >
          <div
            v-for="track in rows"
            :key="track.id"
            class="row-of"
            :class="[track.kind, { off: track.hidden || track.muted }]"
            :data-track="track.id"
            :style="{ height: `${HEIGHTS[track.kind]}px` }"
          >
            <div class="head-of" :style="{ width: `${headWidth}px` }" @pointerdown.stop>
              <TrackHead :track="track" :height="HEIGHTS[track.kind]" />
            </div>
            <div class="lane">
              <TimelineClip
                v-for="one in shown(track)"
                :key="one.clip.id"
                :clip="one.clip"
                :take="takeOf(one.clip)"
                :left="one.left"
                :width="one.width"
                :height="HEIGHTS[track.kind] - 5"
                :px-per-second="zoom"
                :view="view"
                :in-hand="hand.ids.includes(one.clip.id ?? '')"
                :lifted="drags.draft.value?.id === one.clip.id && drags.draft.value?.track !== null"
                :locked="track.locked ?? false"
                :missing="isMissing(one.clip)"
              />
            </div>
          </div>
          <p v-if="!project.length" class="hint" :style="{ left: `${headWidth}px` }">
            Nothing on the timeline yet. In Gather, choose a take and place it.
          </p>
        </div>
        <div
          class="playhead"
          :style="{ transform: `translateX(${headWidth + LEAD + playheadPx}px)` }"
          aria-hidden="true"
        />
        <div
          v-if="drags.snapPx.value !== null"
          class="snap-line"
          :style="{ transform: `translateX(${headWidth + LEAD + drags.snapPx.value}px)` }"
        />
      </div>
    </div>
  </section>
</template>

<style scoped>
.timeline {
  min-height: 0;
  min-width: 0;
  background: #110e14;
}
.scroller {
  height: 100%;
  overflow: auto;
  scrollbar-width: thin;
  scrollbar-color: #38313f transparent;
}
.inner {
  position: relative;
  min-height: 100%;
}
.ruler-row {
  display: flex;
  position: sticky;
  top: 0;
  z-index: 8;
  height: 30px;
  background: #1a161e;
}
.corner {
  position: sticky;
  left: 0;
  z-index: 2;
  flex: none;
  display: flex;
  justify-content: space-between;
  background: #1a161e;
}
.corner .btn {
  min-height: 30px;
  min-width: 34px;
  padding: 0;
}
.rows {
  position: relative;
}
.row-of {
  display: flex;
  border-bottom: 1px solid #241f29;
}
.row-of.main {
  background: #1a161e;
}
.head-of {
  position: sticky;
  left: 0;
  z-index: 7;
  flex: none;
  background: #1a161e;
  border-right: 1px solid #241f29;
}
.lane {
  position: relative;
  flex: 1;
  margin-left: 12px;
}
.off .lane {
  opacity: 0.4;
}
.playhead {
  position: absolute;
  top: 0;
  bottom: 0;
  left: -1px;
  width: 2px;
  background: var(--text);
  z-index: 6;
  pointer-events: none;
}
.snap-line {
  position: absolute;
  top: 30px;
  bottom: 0;
  left: -1px;
  width: 2px;
  background: var(--mark);
  z-index: 6;
  pointer-events: none;
}
.hint {
  position: absolute;
  top: 50%;
  transform: translateY(-50%);
  margin: 0;
  padding: 0 16px;
  color: var(--quiet);
  pointer-events: none;
}
</style>
