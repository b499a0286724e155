<script setup lang="ts">
/** What a finger hides: the picture around it, larger, beside it, while it holds something fine. */
import { useEventListener } from '@vueuse/core'
import { nextTick, ref } from 'vue'

const props = defineProps<{
  /** The picture, and where it is watched for fingers. */
  canvas: HTMLCanvasElement | null
  room: HTMLElement | null
}>()

const SIZE = 116
const CLOSER = 2.5
/** Pixels from the finger to the middle of the loupe. */
const AWAY = 104

const glass = ref<HTMLCanvasElement | null>(null)
const place = ref<{ left: number; top: number } | null>(null)
let pointer = -1

function down(event: PointerEvent) {
  if (event.pointerType === 'mouse' || pointer >= 0) return
  if (!(event.target as Element).closest('[data-fine]')) return
  pointer = event.pointerId
  show(event)
}

async function show(event: PointerEvent) {
  if (event.pointerId !== pointer || !props.room) return
  const room = props.room.getBoundingClientRect()
  const [x, y] = [event.clientX - room.left, event.clientY - room.top]
  const above = y > AWAY + SIZE / 2
  const inside = (at: number) => Math.min(Math.max(at, SIZE / 2), room.width - SIZE / 2)
  const beside = x < room.width / 2 ? x + AWAY : x - AWAY
  place.value = {
    left: inside(above ? x : beside) - SIZE / 2,
    top: above ? y - AWAY - SIZE / 2 : Math.max(0, y - SIZE / 2),
  }
  await nextTick()
  draw(event)
}

function draw(event: PointerEvent) {
  const context = glass.value?.getContext('2d')
  const picture = props.canvas
  if (!context || !picture?.width) return
  const box = picture.getBoundingClientRect()
  const scale = picture.width / box.width
  const side = (SIZE / CLOSER) * scale
  const [x, y] = [(event.clientX - box.left) * scale, (event.clientY - box.top) * scale]
  context.fillStyle = '#161616'
  context.fillRect(0, 0, SIZE, SIZE)
  context.drawImage(picture, x - side / 2, y - side / 2, side, side, 0, 0, SIZE, SIZE)
}

function end(event: PointerEvent) {
  if (event.pointerId !== pointer) return
  pointer = -1
  place.value = null
}

useEventListener(() => props.room, 'pointerdown', down, { capture: true })
useEventListener(window, 'pointermove', show)
useEventListener(window, ['pointerup', 'pointercancel'], end)
</script>

<template>
  <div
    v-if="place"
    class="loupe"
    :style="{ left: `${place.left}px`, top: `${place.top}px` }"
    aria-hidden="true"
    data-test="loupe"
  >
    <canvas ref="glass" :width="SIZE" :height="SIZE" />
    <svg :viewBox="`0 0 ${SIZE} ${SIZE}`">
      <path :d="`M${SIZE / 2} ${SIZE / 2 - 12}v24M${SIZE / 2 - 12} ${SIZE / 2}h24`" />
    </svg>
  </div>
</template>

<style scoped>
.loupe {
  position: absolute;
  z-index: 5;
  width: 116px;
  height: 116px;
  border-radius: 58px 58px 14px 58px;
  overflow: hidden;
  box-shadow:
    0 0 0 2px var(--text),
    0 6px 20px #000a;
  pointer-events: none;
}
svg {
  position: absolute;
  inset: 0;
}
path {
  stroke: #fff;
  stroke-width: 1.5;
  mix-blend-mode: difference;
}
</style>
