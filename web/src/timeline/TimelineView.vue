<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useElementSize } from '@vueuse/core'
import IconIn from '~icons/tabler/zoom-in'
import IconOut from '~icons/tabler/zoom-out'
import IconAll from '~icons/tabler/arrow-autofit-width'
import IconClose from '~icons/tabler/chevrons-down'
import { TICKS_PER_SECOND, type Marker, type Track } from '@/api/types'
import { usePhone } from '@/look/phone'
import { useScreen } from '@/player/inject'
import { useHand } from '@/stores/hand'
import { useMoving } from '@/stores/moving'
import { startOf, useProject } from '@/stores/project'
import { beatsOf } from '@/timeline/beats'
import BeatRow from '@/timeline/BeatRow.vue'
import GroupPath from '@/timeline/GroupPath.vue'
import KeyLanes from '@/timeline/KeyLanes.vue'
import MarkerDialog from '@/timeline/MarkerDialog.vue'
import MarkerFlags from '@/timeline/MarkerFlags.vue'
import { toPx, toTick } from '@/timeline/scale'
import TimelineRow from '@/timeline/TimelineRow.vue'
import DragTold from '@/timeline/DragTold.vue'
import LoopBand from '@/timeline/LoopBand.vue'
import TimelineRuler from '@/timeline/TimelineRuler.vue'
import { useDrags } from '@/timeline/useDrags'
import { useRoving } from '@/timeline/useRoving'
import { useDrawn } from '@/timeline/useDrawn'
import { usePresses, type Lane } from '@/timeline/usePresses'
import { useZoom } from '@/timeline/useZoom'
import { frameOf, tickOf } from '@/time'

defineEmits<{ close: [] }>()
const { phone } = usePhone()
const project = useProject()
const hand = useHand()
const moving = useMoving()
const { player } = useScreen()

const scroller = ref<HTMLElement | null>(null)
const { width: seenWidth } = useElementSize(scroller)
/** Room before the first frame, so that the playhead's head is seen whole there. */
const LEAD = 12
const HEIGHTS: Record<Track['kind'], number> = { main: 58, picture: 44, sound: 44 }

const headWidth = computed(() => (seenWidth.value < 560 ? 94 : 116))
const laneWidth = computed(() => Math.max(120, seenWidth.value - headWidth.value - LEAD))
const fingers = { holds: (): boolean => presses.holds(), forget: () => presses.forget() }
const { zoom, zooming, scroll, zoomBy, showAll, wheel, onScroll, scrollTo, fromEdge } = useZoom(
  scroller,
  laneWidth,
  () => headWidth.value + LEAD,
  () => project.length / TICKS_PER_SECOND,
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

const beats = computed(() => beatsOf(project.tracks))

/** The clip whose keys are shown in lanes of their own. */
const opened = computed(() => (moving.lanes ? hand.one : null))

function lanes(): Lane[] {
  const shown = scroller.value?.querySelectorAll<HTMLElement>('[data-track]') ?? []
  return [...shown].flatMap((row) => {
    const track = rows.value.find((one) => one.id === row.dataset.track)
    return track ? [{ track, box: row.getBoundingClientRect() }] : []
  })
}

const trackAt = (y: number) =>
  lanes().find(({ box }) => y >= box.top && y < box.bottom)?.track ?? null
const tickAt = (clientX: number) =>
  toTick(Math.max(0, fromEdge(clientX) + scroll.value), zoom.value)

const drags = useDrags(zoom, player, trackAt)
const presses = usePresses(player, drags, tickAt, lanes)
const roving = useRoving(rows, scroller, (clip) => {
  const { from, to } = view.value
  const px = toPx(startOf(clip), zoom.value)
  if (px < from || px > to - 40) scrollTo(Math.max(0, px - laneWidth.value * 0.2))
  onScroll()
})

/** What is in hand, as long as it is not too much, and what Tab comes to is never one of a crowd. */
const MOST_SINGLE = 200
const singles = computed(
  () => new Set([...(hand.ids.length > MOST_SINGLE ? [] : hand.ids), roving.stop.value]),
)
const { drawn, nearFrom, nearTo, labelAt } = useDrawn(
  rows,
  view,
  zoom,
  zooming,
  drags.draft,
  (clip) => singles.value.has(clip.id ?? ''),
)

/** Pixels of the page at which the film begins. */
const edgeOnPage = () =>
  (scroller.value?.getBoundingClientRect().left ?? 0) + headWidth.value + LEAD - scroll.value

const scrubbing = ref(false)
function scrubTo(px: number | null) {
  scrubbing.value = px !== null
  if (px !== null) player.seek(frameOf(toTick(Math.max(0, px), zoom.value), project.rate))
}

watch(
  [() => project.document && project.id, () => project.within, () => laneWidth.value > 200],
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
  <section
    class="timeline"
    :class="{ nested: project.within }"
    :aria-label="$t('timeline.timelineView.timeline')"
  >
    <GroupPath v-if="project.within" />
    <button
      v-if="phone"
      class="btn btn-bare close"
      :aria-label="$t('timeline.timelineView.backToTheTools')"
      :title="$t('timeline.timelineView.backToTheTools')"
      data-test="close-timeline"
      @click="$emit('close')"
    >
      <IconClose aria-hidden="true" />
    </button>
    <div ref="scroller" class="scroller" @scroll.passive="onScroll" @wheel="wheel">
      <div class="inner" :style="{ width: `${headWidth + LEAD + contentWidth}px` }">
        <div class="ruler-row">
          <div class="corner" :style="{ width: `${headWidth}px` }">
            <button
              class="btn btn-bare"
              :aria-label="$t('timeline.timelineView.zoomOut')"
              @click="zoomBy(1 / 1.5)"
            >
              <IconOut aria-hidden="true" />
            </button>
            <button
              class="btn btn-bare"
              :aria-label="$t('timeline.timelineView.zoomIn')"
              @click="zoomBy(1.5)"
            >
              <IconIn aria-hidden="true" />
            </button>
            <button
              v-if="headWidth > 100"
              class="btn btn-bare"
              :aria-label="$t('timeline.timelineView.showAll')"
              :title="$t('timeline.timelineView.showAll')"
              @click="showAll(project.length)"
            >
              <IconAll aria-hidden="true" />
            </button>
          </div>
          <TimelineRuler :view="view" :zoom="zoom" :playhead="playheadPx" @scrub="scrubTo">
            <LoopBand :zoom="zoom" />
            <MarkerFlags :zoom="zoom" :view="view" @name="naming = $event" />
          </TimelineRuler>
        </div>
        <BeatRow
          v-if="beats.length"
          :beats="beats"
          :head-width="headWidth"
          :zoom="zoom"
          :view="view"
        />
        <div
          class="rows"
          role="grid"
          tabindex="-1"
          :aria-label="$t('timeline.timelineView.timelineArrowsGoToOther')"
          aria-multiselectable="true"
          :aria-rowcount="rows.length"
          @pointerdown="presses.down"
          @focusin="roving.onFocus"
          @focusout="roving.onBlur"
          @keydown="roving.go($event) || presses.onClipKey($event)"
        >
          <template v-for="{ track, clips, plain, crowds } in drawn" :key="track.id">
            <TimelineRow
              :track="track"
              :clips="clips"
              :plain="plain"
              :crowds="crowds"
              :height="HEIGHTS[track.kind]"
              :head-width="headWidth"
              :zoom="zoom"
              :zooming="zooming"
              :near-from="nearFrom"
              :near-to="nearTo"
              :label-at="labelAt"
              :drags="drags"
              :tab-stop="roving.stop.value"
              @mark="naming = $event"
            />
            <div
              v-if="opened && opened.track.id === track.id"
              role="row"
              :aria-label="$t('timeline.timelineView.keys')"
            >
              <div role="gridcell">
                <KeyLanes
                  :clip="opened.clip"
                  :zoom="zoom"
                  :head-width="headWidth"
                  :locked="track.locked ?? false"
                />
              </div>
            </div>
          </template>
          <p
            v-if="!project.length"
            class="hint"
            role="presentation"
            :style="{ left: `${headWidth}px` }"
          >
            {{ $t('timeline.timelineView.nothingOnTheTimelineYet') }}
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
      v-if="presses.lasso.value"
      class="lasso"
      :style="{
        left: `${presses.lasso.value.left}px`,
        top: `${presses.lasso.value.top}px`,
        width: `${presses.lasso.value.width}px`,
        height: `${presses.lasso.value.height}px`,
      }"
    />
    <DragTold v-if="drags.told.value" :told="drags.told.value" :left="edgeOnPage()" />
    <MarkerDialog v-model="naming" />
  </section>
</template>

<style scoped>
.timeline {
  --ruler: 30px;
  --beats: 18px;
  min-height: 0;
  min-width: 0;
  position: relative;
  background: #110e14;
}
.close {
  position: absolute;
  right: 0;
  bottom: 0;
  z-index: 9;
  background: #1a161ee6;
}
.timeline.nested {
  display: grid;
  grid-template-rows: auto 1fr;
  box-shadow: inset 0 3px 0 var(--group);
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
  height: var(--ruler);
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
  min-height: var(--ruler);
  min-width: 34px;
  padding: 0;
}
@media (pointer: coarse) {
  .timeline {
    --ruler: 44px;
    --beats: 30px;
  }
  .corner .btn {
    min-width: var(--touch);
  }
}
.rows {
  position: relative;
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
  top: var(--ruler);
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
