<script setup lang="ts">
/** A take from its first to its last frame, its marks, and where one is; closer, a part of it. */
import { useElementSize } from '@vueuse/core'
import { computed, ref, watch, watchEffect } from 'vue'
import { TICKS_PER_SECOND, type Clip, type Take } from '@/api/types'
import TimeZoom from '@/controls/TimeZoom.vue'
import { useGrip } from '@/controls/useGrip'
import { usePinch } from '@/controls/usePinch'
import { useTimeWindow } from '@/controls/useTimeWindow'
import { drawFace } from '@/timeline/faces'

const props = defineProps<{ take: Take; length: number; at: number; from: number; to: number }>()
const emit = defineEmits<{ seek: [tick: number]; mark: [from: number, to: number] }>()

const strip = ref<HTMLElement | null>(null)
const canvas = ref<HTMLCanvasElement | null>(null)
const { width } = useElementSize(strip)
const HEIGHT = 40
const dragged = ref<{ from: number; to: number } | null>(null)

const span = computed(() => dragged.value ?? { from: props.from, to: props.to })
const share = (tick: number) => `${(tick / props.length) * 100}%`

const time = useTimeWindow(
  () => ({ low: 0, high: props.length }),
  () => ({ left: strip.value?.getBoundingClientRect().left ?? 0, width: Math.max(1, width.value) }),
)
const shown = time.shown
const closer = computed(() => time.close.value > 1)
/** All of the take, of which the strip shows a part. */
const sheet = computed(() => ({
  left: `${(-100 * shown.value.low) / (shown.value.high - shown.value.low)}%`,
  width: `${100 * time.close.value}%`,
}))
// What is looked at closely goes along with where one is.
watch(
  () => props.at,
  (at) => (at < shown.value.low || at > shown.value.high) && time.follow(at),
)

watchEffect(draw, { flush: 'post' })

function draw() {
  if (!canvas.value || !width.value || !props.take.facts) return
  const clip = {
    kind: props.take.facts.kind,
    media: props.take.media,
    length: props.length,
    source_in: 0,
  } as unknown as Clip
  const { low, high } = shown.value
  const pxPerSecond = (width.value / (high - low)) * TICKS_PER_SECOND
  const from = (low / TICKS_PER_SECOND) * pxPerSecond
  const seen = { from, to: from + width.value, pxPerSecond, height: HEIGHT, slip: 0 }
  drawFace(canvas.value, clip, props.take, seen, draw)
}

function tickAt(x: number): number {
  const box = strip.value?.getBoundingClientRect()
  if (!box) return 0
  const { low, high } = shown.value
  const at = low + ((x - box.left) / box.width) * (high - low)
  return Math.round(Math.min(Math.max(at, 0), props.length))
}
const seekTo = (x: number) => emit('seek', Math.min(tickAt(x), props.length - 1))

/** One finger goes through the take, two come closer. */
const fingers = usePinch({
  begin: time.hold,
  joins: () => true,
  settle: time.hold,
  move(all) {
    const [one, other] = all.now
    if (other) time.pull(all)
    else if (one) seekTo(one.x)
  },
  drop: () => {},
})

function press(event: PointerEvent) {
  if (event.isPrimary) seekTo(event.clientX)
  fingers.down(event)
}

const grip = useGrip<'from' | 'to'>({
  slop: 0,
  move({ event }, what) {
    const tick = tickAt(event.clientX)
    const least = TICKS_PER_SECOND / 30
    if (what === 'from')
      dragged.value = { ...span.value, from: Math.min(tick, span.value.to - least) }
    if (what === 'to')
      dragged.value = { ...span.value, to: Math.max(tick, span.value.from + least) }
    seekTo(event.clientX)
  },
  drop() {
    if (dragged.value) emit('mark', Math.round(dragged.value.from), Math.round(dragged.value.to))
    dragged.value = null
  },
  cancel: () => (dragged.value = null),
})
</script>

<template>
  <div class="row-of">
    <div
      ref="strip"
      class="strip"
      :class="{ closer }"
      role="slider"
      tabindex="0"
      :aria-label="$t('gather.markStrip.placeInTheTake')"
      :aria-valuemin="0"
      :aria-valuemax="Math.round(length / TICKS_PER_SECOND)"
      :aria-valuenow="Math.round(at / TICKS_PER_SECOND)"
      data-test="mark-strip"
      @pointerdown.prevent="press"
      @dragstart.prevent
      @wheel="time.wheel"
      @keydown.left.stop.prevent="emit('seek', at - TICKS_PER_SECOND / 30)"
      @keydown.right.stop.prevent="emit('seek', at + TICKS_PER_SECOND / 24)"
    >
      <div class="sheet" :style="sheet">
        <canvas ref="canvas" aria-hidden="true" />
        <span class="shade" :style="{ left: 0, width: share(span.from) }" />
        <span class="shade" :style="{ left: share(span.to), right: 0 }" />
        <span class="span" :style="{ left: share(span.from), width: share(span.to - span.from) }" />
        <span
          class="grip"
          :style="{ left: share(span.from) }"
          @pointerdown.stop.prevent="grip.down($event, 'from')"
        />
        <span
          class="grip"
          :style="{ left: share(span.to) }"
          @pointerdown.stop.prevent="grip.down($event, 'to')"
        />
        <span class="at" :style="{ left: share(at) }" />
      </div>
    </div>
    <TimeZoom :time="time" :around="at" />
  </div>
</template>

<style scoped>
.row-of {
  display: flex;
  flex: none;
  align-items: center;
  gap: 4px;
}
.strip {
  position: relative;
  flex: 1;
  min-width: 0;
  height: 40px;
  border-radius: 6px 6px 2px 6px;
  background: var(--raised);
  touch-action: none;
  cursor: pointer;
}
.closer {
  overflow: hidden;
}
.sheet {
  position: absolute;
  top: 0;
  bottom: 0;
}
canvas {
  position: absolute;
  top: 0;
  height: 40px;
  border-radius: inherit;
}
.shade {
  position: absolute;
  top: 0;
  bottom: 0;
  background: #17141ab3;
}
.span {
  position: absolute;
  top: 0;
  bottom: 0;
  border: 2px solid var(--accent);
  border-radius: 6px 6px 2px 6px;
  pointer-events: none;
}
.grip {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 28px;
  margin-left: -14px;
  cursor: ew-resize;
}
.grip::after {
  content: '';
  position: absolute;
  left: 11px;
  top: 10px;
  bottom: 10px;
  width: 6px;
  border-radius: 3px;
  background: var(--accent);
}
.at {
  position: absolute;
  top: -2px;
  bottom: -2px;
  width: 2px;
  margin-left: -1px;
  background: #fff;
  pointer-events: none;
}
</style>
