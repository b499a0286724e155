<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useElementSize } from '@vueuse/core'
import IconIn from '~icons/tabler/zoom-in'
import IconOut from '~icons/tabler/zoom-out'
import IconAll from '~icons/tabler/arrow-autofit-width'
import IconBack from '~icons/tabler/arrow-back-up'
import { faceMedia, hasMedia, type Clip, type Marker, type Track } from '@/api/types'
import { useScreen } from '@/player/inject'
import { useHand } from '@/stores/hand'
import { findGroup } from '@/stores/groups'
import { useLibrary } from '@/stores/library'
import { endOf, startOf, useProject } from '@/stores/project'
import JoinMark from '@/timeline/JoinMark.vue'
import MarkerDialog from '@/timeline/MarkerDialog.vue'
import MarkerFlags from '@/timeline/MarkerFlags.vue'
import { firstEndingAfter, toPx, toTick } from '@/timeline/scale'
import { lateBy } from '@/timeline/sync'
import TimelineClip from '@/timeline/TimelineClip.vue'
import TimelineRuler from '@/timeline/TimelineRuler.vue'
import TrackHead from '@/timeline/TrackHead.vue'
import { useDrags } from '@/timeline/useDrags'
import { useLasso } from '@/timeline/useLasso'
import { useZoom } from '@/timeline/useZoom'
import { frameOf, tickOf } from '@/time'

const project = useProject()
const library = useLibrary()
const hand = useHand()
const { player } = useScreen()

const scroller = ref<HTMLElement | null>(null)
const { width: seenWidth } = useElementSize(scroller)
/** Room before the first frame, so that the playhead's head is seen whole there. */
const LEAD = 12
const HEIGHTS: Record<Track['kind'], number> = { main: 58, picture: 44, sound: 40 }

const headWidth = computed(() => (seenWidth.value < 560 ? 78 : 116))
const laneWidth = computed(() => Math.max(120, seenWidth.value - headWidth.value - LEAD))
const fingers = {
  holds: (): boolean => drags.isLifted() || lasso.holds(),
  forget: () => {
    drags.forget()
    lasso.forget()
    pressed = null
  },
}
const { zoom, zooming, scroll, zoomBy, showAll, wheel, onScroll, scrollTo, fromEdge } = useZoom(
  scroller,
  laneWidth,
  () => headWidth.value + LEAD,
  fingers,
)
const contentWidth = computed(() =>
  Math.max(laneWidth.value, toPx(project.length, zoom.value) + laneWidth.value * 0.6),
)
const view = computed(() => ({ from: scroll.value, to: scroll.value + laneWidth.value }))
const playheadPx = computed(() => toPx(tickOf(player.frame.value, project.rate), zoom.value))
const naming = ref<Marker | null>(null)

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
const lasso = useLasso(takeWithin)

interface Shown {
  clip: Clip
  left: number
  width: number
}

/** What is drawn reaches past what is seen and moves in steps: scrolling a little redraws nothing. */
const STEP = 320
const margin = computed(() => (zooming.value ? 0 : STEP))
const nearFrom = computed(() => Math.floor(view.value.from / STEP) * STEP - margin.value)
const nearTo = computed(() => Math.ceil(view.value.to / STEP) * STEP + margin.value)

/** The clips of each row that are drawn, and where; a dragged one where it is dragged. */
const drawn = computed(() => rows.value.map((track) => ({ track, clips: shown(track) })))

function shown(track: Track): Shown[] {
  const draft = drags.draft.value
  const from = toTick(nearFrom.value, zoom.value)
  const to = toTick(nearTo.value, zoom.value)
  const found: Shown[] = []
  for (const clip of track.clips.slice(firstEndingAfter(track.clips, from))) {
    const mine = draft?.id === clip.id ? draft : null
    if (mine?.track && mine.track !== track.id) continue
    const start = mine?.start ?? startOf(clip)
    if (start > to && !mine) break
    found.push(placed(clip, start, mine?.end ?? endOf(clip)))
  }
  if (draft && draft.track === track.id && !found.some(({ clip }) => clip.id === draft.id)) {
    const moved = project.findClip(draft.id)
    if (moved) found.push(placed(moved.clip, draft.start, draft.end))
  }
  return found
}

/** Where the name of a clip begins that lies across the left edge of what is seen. */
function labelAt(one: Shown): number {
  const hidden = view.value.from - one.left
  return hidden > 0 && hidden < one.width ? hidden : 0
}

function placed(clip: Clip, start: number, end: number): Shown {
  const left = toPx(start, zoom.value)
  return { clip, left, width: Math.max(3, toPx(end, zoom.value) - left) }
}

function takeOf(clip: Clip) {
  return library.byMedia.get(faceMedia(clip))
}

function isMissing(clip: Clip): boolean {
  if (!library.loaded || !hasMedia(clip)) return false
  const take = takeOf(clip)
  return !take || take.state === 'refused' || !take.facts || take.missing
}

const path = computed(() =>
  project.opened.map((id) => findGroup(project.document?.tracks ?? [], id)),
)

function leaveTo(depth: number) {
  hand.release()
  project.leaveTo(depth)
  player.seek(0)
}

// Pressing, dragging, tapping

let pressed: { clip: Clip | null; x: number; y: number } | null = null
let tapped = { id: '', at: 0 }

function clipUnder(target: EventTarget | null): { clip: Clip; track: Track } | null {
  const id = (target as HTMLElement | null)?.closest<HTMLElement>('[data-clip]')?.dataset.clip
  return id ? project.findClip(id) : null
}

function down(event: PointerEvent) {
  const found = clipUnder(event.target)
  pressed = { clip: found?.clip ?? null, x: event.clientX, y: event.clientY }
  const edge = (event.target as HTMLElement).dataset.edge as 'start' | 'end' | undefined
  if (edge || event.pointerType !== 'touch') {
    ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  }
  if (found) drags.down(event, found.clip, found.track, edge ?? null)
  else if (event.button === 0) lasso.down(event)
}

function move(event: PointerEvent) {
  drags.move(event)
  lasso.move(event)
}

function up(event: PointerEvent) {
  const used = [drags.up(), lasso.up()].some(Boolean)
  const still = pressed && Math.hypot(event.clientX - pressed.x, event.clientY - pressed.y) < 8
  if (!used && pressed && still) tap(event, pressed.clip)
  pressed = null
}

function tap(event: PointerEvent, clip: Clip | null) {
  if (!clip) {
    hand.release()
    player.seek(
      frameOf(
        toTick(Math.max(0, fromEdge(event.clientX) + scroll.value), zoom.value),
        project.rate,
      ),
    )
    return
  }
  const id = clip.id ?? ''
  const again = tapped.id === id && event.timeStamp - tapped.at < 350
  tapped = { id, at: event.timeStamp }
  if (again && clip.kind === 'group') {
    hand.release()
    project.enter(id)
    player.seek(0)
    return
  }
  hand.take(id, event.shiftKey || event.ctrlKey || event.metaKey)
}

/** All clips that a rectangle on the screen touches. */
function takeWithin(box: DOMRect) {
  const found: string[] = []
  for (const row of scroller.value?.querySelectorAll<HTMLElement>('[data-track]') ?? []) {
    const lane = row.getBoundingClientRect()
    if (lane.bottom < box.top || lane.top > box.bottom) continue
    const track = rows.value.find((one) => one.id === row.dataset.track)
    const from = toTick(fromEdge(box.left) + scroll.value, zoom.value)
    const to = toTick(fromEdge(box.right) + scroll.value, zoom.value)
    for (const clip of track?.clips ?? []) {
      if (endOf(clip) > from && startOf(clip) < to) found.push(clip.id ?? '')
    }
  }
  hand.takeAll(found)
}

function onClipKey(event: KeyboardEvent) {
  const found = clipUnder(event.target)
  if (!found || (event.key !== 'Enter' && event.key !== ' ')) return
  event.preventDefault()
  event.stopPropagation()
  hand.take(found.clip.id ?? '', event.shiftKey)
}

function chooseJoin(clip: Clip) {
  hand.take(clip.id ?? '')
  player.seek(frameOf(startOf(clip), project.rate))
}

const scrubbing = ref(false)
function scrubTo(px: number | null) {
  scrubbing.value = px !== null
  if (px !== null) player.seek(frameOf(toTick(Math.max(0, px), zoom.value), project.rate))
}

watch(
  [() => project.id, () => project.within, () => laneWidth.value > 200],
  () => showAll(project.length),
  { immediate: true },
)

// While playing, and when stepped out of sight, the playhead is brought back into view.
watch(playheadPx, (px) => {
  const { from, to } = view.value
  if (scrubbing.value || drags.active.value || (px >= from && px <= to - 24)) return
  scrollTo(Math.max(0, px - laneWidth.value * 0.2))
})
</script>

<template>
  <section class="timeline" :class="{ nested: project.within }" aria-label="Timeline">
    <nav v-if="project.within" class="path" aria-label="Open groups">
      <button class="btn btn-bare" data-test="leave-group" @click="leaveTo(path.length - 1)">
        <IconBack aria-hidden="true" />Back
      </button>
      <button class="crumb" @click="leaveTo(0)">{{ project.name }}</button>
      <template v-for="(group, index) in path" :key="index">
        <span aria-hidden="true" class="quiet">in</span>
        <button class="crumb" :aria-current="index === path.length - 1" @click="leaveTo(index + 1)">
          {{ group?.name || 'Group' }}
        </button>
      </template>
    </nav>
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
              @click="showAll(project.length)"
            >
              <IconAll aria-hidden="true" />
            </button>
          </div>
          <TimelineRuler :view="view" :zoom="zoom" :playhead="playheadPx" @scrub="scrubTo">
            <MarkerFlags :zoom="zoom" :view="view" @name="naming = $event" />
          </TimelineRuler>
        </div>
        <div
          class="rows"
          role="listbox"
          aria-label="Clips"
          aria-multiselectable="true"
          @pointerdown="down"
          @pointermove="move"
          @pointerup="up"
          @pointercancel="fingers.forget()"
          @keydown="onClipKey"
        >
          <div
            v-for="{ track, clips } in drawn"
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
                v-for="one in clips"
                :key="one.clip.id"
                :clip="one.clip"
                :take="takeOf(one.clip)"
                :left="one.left"
                :width="one.width"
                :height="HEIGHTS[track.kind] - 5"
                :px-per-second="zoom"
                :moving="zooming"
                :near-from="nearFrom"
                :near-to="nearTo"
                :label-at="labelAt(one)"
                :in-hand="hand.ids.includes(one.clip.id ?? '')"
                :lifted="drags.draft.value?.id === one.clip.id && drags.draft.value?.track !== null"
                :locked="track.locked ?? false"
                :missing="isMissing(one.clip)"
                :late="lateBy(one.clip, project.tracks, project.rate)"
                :slip="drags.slipOf(one.clip.id)"
                @mark="naming = $event"
              />
              <template v-for="one in clips" :key="`join-${one.clip.id}`">
                <JoinMark
                  v-if="one.clip.transition && !drags.active.value"
                  :clip="one.clip"
                  :transition="one.clip.transition"
                  :zoom="zoom"
                  :height="HEIGHTS[track.kind] - 5"
                  @choose="chooseJoin(one.clip)"
                />
              </template>
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
        >
          <span class="snap-name tiny">{{ drags.snapName.value }}</span>
        </div>
      </div>
    </div>
    <div
      v-if="lasso.box.value"
      class="lasso"
      :style="{
        left: `${lasso.box.value.left}px`,
        top: `${lasso.box.value.top}px`,
        width: `${lasso.box.value.width}px`,
        height: `${lasso.box.value.height}px`,
      }"
    />
    <MarkerDialog v-model="naming" />
  </section>
</template>

<style scoped>
.timeline {
  min-height: 0;
  min-width: 0;
  background: #110e14;
}
.timeline.nested {
  display: grid;
  grid-template-rows: auto 1fr;
  box-shadow: inset 0 3px 0 var(--group);
}
.path {
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 3px 8px 0;
  overflow-x: auto;
  white-space: nowrap;
}
.crumb {
  border: 0;
  border-radius: var(--fold);
  background: none;
  color: var(--soft);
  min-height: 32px;
  padding: 0 8px;
}
.crumb[aria-current='true'] {
  background: var(--group);
  color: #fff;
  font-weight: 600;
}
.lasso {
  position: fixed;
  z-index: 20;
  border: 1.5px dashed var(--text);
  border-radius: var(--fold);
  background: #f1ecf51a;
  pointer-events: none;
}
.snap-name {
  position: absolute;
  top: 2px;
  left: 5px;
  padding: 1px 6px;
  border-radius: 6px 6px 2px 6px;
  background: var(--mark);
  color: #10201d;
  font-weight: 600;
  white-space: nowrap;
}
.scroller {
  height: 100%;
  min-height: 0;
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
