<script setup lang="ts">
/**
 * The gain of a sound in hand as a line over its clip, and its fades by their corners. The line is
 * dragged up and down; twice tapped it gets a key there, or loses it. A key moves both ways.
 */
import { computed, ref } from 'vue'
import { TICKS_PER_SECOND, type SoundingClip } from '@/api/types'
import { decibelsAt, gainLabel, shareOf } from '@/controls/faders'
import { arrowWay } from '@/controls/arrows'
import { useDraft } from '@/controls/useDraft'
import { useGrip } from '@/controls/useGrip'
import { useTwice } from '@/controls/useTwice'
import { isKeyed, valueAt, type Keyed } from '@/motion/keys'
import { startOf, useProject } from '@/stores/project'
import { frameTicks } from '@/time'
import { fadeCurve, withGain, withKey, withoutKey } from './soundline'

const props = defineProps<{ clip: SoundingClip; height: number; zoom: number; locked: boolean }>()
const project = useProject()

interface Draft {
  gain?: number | Keyed
  fade_in?: number
  fade_out?: number
}
const draft = useDraft<Draft>(() => props.clip)
const box = ref<SVGSVGElement | null>(null)

const gain = computed<unknown>(() => draft.value?.gain ?? props.clip.gain ?? 0)
const fadeIn = computed(() => draft.value?.fade_in ?? props.clip.fade_in ?? 0)
const fadeOut = computed(() => draft.value?.fade_out ?? props.clip.fade_out ?? 0)
const width = computed(() => (props.clip.length / TICKS_PER_SECOND) * props.zoom)
const pxOf = (tick: number) => (tick / TICKS_PER_SECOND) * props.zoom
const tickAt = (px: number) => (px / props.zoom) * TICKS_PER_SECOND
/** Room above and below the line. */
const EDGE = 7
const yOf = (decibels: number) => EDGE + (1 - shareOf(decibels)) * (props.height - 2 * EDGE)
const decibelsOf = (y: number) =>
  Math.round(decibelsAt(1 - (y - EDGE) / (props.height - 2 * EDGE)) * 10) / 10

const STEP_PX = 6
const line = computed(() => {
  const steps = isKeyed(gain.value) ? Math.min(800, Math.ceil(width.value / STEP_PX)) : 1
  return Array.from({ length: steps + 1 }, (_, at) => {
    const px = (width.value * at) / steps
    return `${px.toFixed(1)},${yOf(Number(valueAt(gain.value, tickAt(px)))).toFixed(1)}`
  }).join(' ')
})
const keys = computed(() => (isKeyed(gain.value) ? gain.value.keys : []))
const shade = computed(() => ({
  in: fadeCurve(props.clip.fade_in_shape ?? 'smooth', pxOf(fadeIn.value), props.height),
  out: fadeCurve(props.clip.fade_out_shape ?? 'smooth', pxOf(fadeOut.value), props.height),
}))

const send = () =>
  draft.value &&
  project.edit({ kind: 'adjust', clips: [props.clip.id ?? ''], values: { ...draft.value } })
const drop = { drop: send, cancel: () => (draft.value = null) }
const begin = () => !props.locked

let from = { decibels: 0, gain: undefined as unknown, at: 0 }
function pressed(event: PointerEvent, tick: number) {
  if (props.locked) return false
  from = { decibels: Number(valueAt(gain.value, tick)), gain: gain.value, at: tick }
  return event.button === 0
}
const tickOf = (event: PointerEvent) =>
  tickAt(event.clientX - (box.value?.getBoundingClientRect().left ?? 0))

const whole = useGrip({
  begin: (_, { event }) => pressed(event, tickOf(event)),
  move({ dy }) {
    const to = decibelsOf(yOf(from.decibels) + dy)
    draft.value = { gain: withGain(from.gain, from.at, to) as Draft['gain'] }
  },
  ...drop,
})
const point = useGrip<number>({
  begin: (tick, { event }) => pressed(event, tick),
  move({ dx, dy }, tick) {
    const to = onFrame(Math.min(props.clip.length, Math.max(0, tick + tickAt(dx))))
    const value = decibelsOf(yOf(from.decibels) + dy)
    draft.value = { gain: withKey(withoutKey(from.gain, tick), to, value) as Draft['gain'] }
  },
  ...drop,
})
type End = 'fade_in' | 'fade_out'
let long = 0
const fade = useGrip<End>({
  begin: (end) => {
    long = end === 'fade_in' ? fadeIn.value : fadeOut.value
    return begin()
  },
  move: ({ dx }, end) => setFade(end, long + tickAt(end === 'fade_in' ? dx : -dx)),
  ...drop,
})

function setFade(end: End, ticks: number) {
  draft.value = { [end]: Math.min(props.clip.length, Math.max(0, onFrame(ticks))) }
}

function onFrame(tick: number) {
  const step = frameTicks(project.rate)
  return Math.round(tick / step) * step
}

function nudge(event: KeyboardEvent, end: End) {
  const by = arrowWay(event)
  if (!by?.[0] || props.locked) return
  event.preventDefault()
  event.stopPropagation()
  const now = end === 'fade_in' ? fadeIn.value : fadeOut.value
  const step = frameTicks(project.rate) * (event.shiftKey ? 10 : 1)
  setFade(end, now + (end === 'fade_in' ? by[0] : -by[0]) * step)
  send()
}

const twice = useTwice((event) => {
  if (props.locked) return
  const tick = onFrame(tickOf(event))
  draft.value = {
    gain: withKey(gain.value, tick, Number(valueAt(gain.value, tick))) as Draft['gain'],
  }
  send()
})
const away = useTwice((event) => {
  const tick = Number((event.currentTarget as Element).getAttribute('data-at'))
  if (props.locked) return
  draft.value = { gain: withoutKey(gain.value, tick) as Draft['gain'] }
  send()
})
const handled = computed(() => whole.held.value !== null || point.held.value !== null)
const now = computed(() => gainLabel(Number(valueAt(gain.value, from.at))))
const left = computed(() => pxOf(startOf(props.clip)))
</script>

<template>
  <div
    class="sound-line"
    :style="{ transform: `translateX(${left}px)`, width: `${width}px`, height: `${height}px` }"
    data-test="sound-line"
  >
    <svg ref="box" :width="width" :height="height" aria-hidden="true">
      <path class="shade" :d="shade.in" />
      <path class="shade" :d="shade.out" :transform="`translate(${width} 0) scale(-1 1)`" />
      <polyline
        class="hit"
        :points="line"
        @pointerdown.stop="whole.down($event)"
        @pointerup="twice"
      />
      <polyline class="line" :points="line" />
      <g
        v-for="key in keys"
        :key="key.at"
        class="key"
        :data-at="key.at"
        :transform="`translate(${pxOf(key.at)} ${yOf(Number(key.value))})`"
        @pointerdown.stop="point.down($event, key.at)"
        @pointerup="away"
      >
        <circle r="14" />
        <path d="M0-6l5 5-5 9-5-9z" />
      </g>
    </svg>
    <button
      class="corner"
      :style="{ left: `${pxOf(fadeIn)}px` }"
      :aria-label="
        $t('timeline.soundLine.fadeIn', { seconds: (fadeIn / TICKS_PER_SECOND).toFixed(2) })
      "
      data-test="fade-in"
      @pointerdown.stop="fade.down($event, 'fade_in')"
      @keydown="nudge($event, 'fade_in')"
    />
    <button
      class="corner"
      :style="{ left: `${width - pxOf(fadeOut)}px` }"
      :aria-label="
        $t('timeline.soundLine.fadeOut', { seconds: (fadeOut / TICKS_PER_SECOND).toFixed(2) })
      "
      data-test="fade-out"
      @pointerdown.stop="fade.down($event, 'fade_out')"
      @keydown="nudge($event, 'fade_out')"
    />
    <div v-if="handled" class="told" role="status">
      {{ $t('timeline.soundLine.gain', { gain: now }) }}
    </div>
  </div>
</template>

<style scoped>
.sound-line {
  position: absolute;
  top: 2px;
  left: 0;
  pointer-events: none;
  z-index: 3;
}
svg {
  display: block;
  overflow: visible;
}
.shade {
  fill: #00000073;
}
.line {
  fill: none;
  stroke: var(--mark);
  stroke-width: 2;
}
.hit {
  fill: none;
  stroke: transparent;
  stroke-width: 16;
  pointer-events: stroke;
  cursor: ns-resize;
  touch-action: none;
}
.key {
  pointer-events: all;
  cursor: move;
  touch-action: none;
}
.key circle {
  fill: transparent;
}
.key path {
  fill: var(--text);
  stroke: #17141a;
}
.corner {
  position: absolute;
  top: -6px;
  width: 28px;
  height: 28px;
  margin-left: -14px;
  border: 0;
  padding: 0;
  background: none;
  pointer-events: auto;
  cursor: ew-resize;
  touch-action: none;
}
.corner::before {
  content: '';
  position: absolute;
  left: 8px;
  top: 8px;
  width: 12px;
  height: 12px;
  border-radius: 6px 6px 2px 6px;
  background: var(--mark);
  box-shadow: 0 0 0 1px #17141a;
}
@media (pointer: coarse) {
  .corner {
    width: 44px;
    height: 44px;
    top: -14px;
    margin-left: -22px;
  }
  .corner::before {
    left: 15px;
    top: 15px;
    width: 14px;
    height: 14px;
  }
  .hit {
    stroke-width: 26;
  }
}
.told {
  position: absolute;
  left: 50%;
  top: -22px;
  padding: 1px 8px;
  border-radius: 8px 8px 2px 8px;
  background: var(--text);
  color: #17141a;
  font-size: 12px;
  font-weight: 600;
}
</style>
