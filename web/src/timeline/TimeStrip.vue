<script setup lang="ts">
/** One row of time, for a phone: what is in hand and its neighbours pass under the playhead. */
import { useElementSize, useLocalStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import IconOpen from '~icons/tabler/chevrons-up'
import { faceMedia, TICKS_PER_SECOND, type Clip } from '@/api/types'
import { usePinch, type Spot } from '@/controls/usePinch'
import { keyedProps } from '@/motion/props'
import { useScreen } from '@/player/inject'
import { useHand } from '@/stores/hand'
import { useLibrary } from '@/stores/library'
import { endOf, startOf, useProject } from '@/stores/project'
import { LEAST_ZOOM, mostZoom, toPx, toTick } from '@/timeline/scale'
import TimelineClip from '@/timeline/TimelineClip.vue'
import { usePlayheadSlider } from '@/timeline/usePlayheadSlider'
import { useStrip } from '@/timeline/useStrip'
import { frameOf, tickOf } from '@/time'

const emit = defineEmits<{ open: [] }>()
const project = useProject()
const library = useLibrary()
const hand = useHand()
const { player } = useScreen()
const slider = usePlayheadSlider()

const strip = ref<HTMLElement | null>(null)
const { width, height } = useElementSize(strip)
const zoom = useLocalStorage('velvet-kite.strip-zoom', 60)
const at = computed(() => tickOf(player.frame.value, project.rate))

/** The row that was worked on last; to begin with, the one that the others follow. */
const row = ref('')
watch(
  () => hand.one?.track.id,
  (track) => track && (row.value = track),
  { immediate: true },
)
const track = computed(
  () =>
    project.tracks.find((one) => one.id === row.value) ??
    project.tracks.find((one) => one.kind === 'main') ??
    null,
)
const { nearFrom, nearTo, clips } = useStrip(track, at, zoom, width)
const shift = computed(() => width.value / 2 - toPx(at.value, zoom.value))

const FINGER = 16
/** Pixels upwards that open the whole timeline. */
const PULL = 34

let grabbed = { frame: 0, zoom: 60 }
const grab = () => void (grabbed = { frame: player.frame.value, zoom: zoom.value })
const wide = ([a, b]: Spot[]) => (a && b ? Math.max(1, Math.abs(a.x - b.x)) : 0)
const middle = (spots: Spot[]) => spots.reduce((sum, { x }) => sum + x, 0) / spots.length

const pinch = usePinch({
  begin() {
    if (player.playing.value) player.pause()
    grab()
  },
  joins: () => true,
  settle: grab,
  move({ begun, now }) {
    if (wide(begun) && wide(now)) {
      const to = grabbed.zoom * (wide(now) / wide(begun))
      zoom.value = Math.min(mostZoom(project.length / TICKS_PER_SECOND), Math.max(LEAST_ZOOM, to))
      return
    }
    const by = middle(begun) - middle(now)
    const pulled = (begun[0]?.y ?? 0) - (now[0]?.y ?? 0)
    if (pulled > PULL && pulled > 2 * Math.abs(by)) {
      pinch.cancel()
      emit('open')
      return
    }
    player.seek(frameOf(tickOf(grabbed.frame, project.rate) + toTick(by, zoom.value), project.rate))
  },
  drop() {},
  tap: (spot) => tap(spot.x - (strip.value?.getBoundingClientRect().left ?? 0) - shift.value),
})

/** Pixels from the beginning of time. */
function tap(px: number) {
  const tick = toTick(px, zoom.value)
  const clip = track.value?.clips.find((one) => startOf(one) <= tick && tick < endOf(one))
  if (!clip) {
    hand.release()
    return
  }
  const key = hand.ids.includes(clip.id ?? '') ? keyNear(clip, px) : null
  if (key !== null) player.seek(frameOf(key, project.rate))
  hand.take(clip.id ?? '')
}

/** Tick of the key of a clip that a finger meant, if it meant one. */
function keyNear(clip: Clip, px: number): number | null {
  const keys = keyedProps(clip).flatMap(({ prop }) => prop.keys.map((key) => key.at))
  const ticks = keys.map((key) => startOf(clip) + key)
  const apart = (tick: number) => Math.abs(toPx(tick, zoom.value) - px)
  const nearest = ticks.sort((a, b) => apart(a) - apart(b))[0]
  return nearest !== undefined && apart(nearest) < FINGER ? nearest : null
}

const takeOf = (clip: Clip) => library.byMedia.get(faceMedia(clip))
</script>

<template>
  <section class="strip-room" :aria-label="$t('timeline.timeStrip.time')">
    <div
      ref="strip"
      class="strip"
      v-bind="slider"
      data-test="strip"
      @pointerdown="pinch.down($event, undefined)"
    >
      <div class="moved" :style="{ transform: `translateX(${shift}px)` }" inert>
        <TimelineClip
          v-for="one in clips"
          :key="one.clip.id"
          class="passing"
          :clip="one.clip"
          :take="takeOf(one.clip)"
          :left="one.left"
          :width="one.width"
          :height="Math.max(8, height - 8)"
          :px-per-second="zoom"
          :moving="false"
          :near-from="nearFrom"
          :near-to="nearTo"
          :label-at="Math.max(0, Math.min(one.width - 60, -shift - one.left))"
          :in-hand="hand.ids.includes(one.clip.id ?? '')"
          :lifted="false"
          :locked="track?.locked ?? false"
          :missing="false"
          :late="0"
          :slip="0"
        />
      </div>
      <span v-if="!project.length" class="hint tiny quiet">{{
        $t('timeline.timeStrip.nothingOnTheTimelineYet')
      }}</span>
      <svg class="playhead" viewBox="0 0 20 60" aria-hidden="true">
        <path d="M10 1 19 10 11 24V60H9V24L1 10Z" />
      </svg>
    </div>
    <button
      class="btn btn-bare open"
      :aria-label="$t('timeline.timeStrip.openTheWholeTimeline')"
      :title="$t('timeline.timeStrip.theWholeTimelineOrPull')"
      data-test="open-timeline"
      @click="emit('open')"
    >
      <IconOpen aria-hidden="true" />
    </button>
  </section>
</template>

<style scoped>
.strip-room {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 44px;
  background: #110e14;
  min-width: 0;
}
.strip {
  position: relative;
  overflow: hidden;
  touch-action: none;
  user-select: none;
  -webkit-user-select: none;
  cursor: grab;
}
.moved {
  position: absolute;
  inset: 2px auto 0 0;
}
.passing {
  pointer-events: none;
}
.passing :deep(:is(.end, [data-switch])) {
  display: none;
}
.playhead {
  position: absolute;
  left: calc(50% - 10px);
  top: 0;
  width: 20px;
  height: 100%;
  fill: var(--text);
  filter: drop-shadow(0 1px 2px #000a);
  pointer-events: none;
}
.hint {
  position: absolute;
  left: 16px;
  top: 50%;
  transform: translateY(-50%);
}
.open {
  border-radius: 0;
  padding: 0;
  min-height: 0;
}
</style>
