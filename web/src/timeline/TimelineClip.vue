<script setup lang="ts">
import { computed, onMounted, onUpdated, ref } from 'vue'
import { hasMedia, type Clip, type Take } from '@/api/types'
import { drawFace } from '@/timeline/faces'
import { KIND_ICONS, KIND_NAMES } from '@/timeline/kinds'
import { lengthLabel } from '@/time'

const props = defineProps<{
  clip: Clip
  take: Take | undefined
  left: number
  width: number
  height: number
  pxPerSecond: number
  /** Pixels of the timeline that can be seen. */
  view: { from: number; to: number }
  inHand: boolean
  lifted: boolean
  locked: boolean
  missing: boolean
}>()

const canvas = ref<HTMLCanvasElement | null>(null)
const label = computed(() => props.clip.name || KIND_NAMES[props.clip.kind])
const spoken = computed(
  () => `${label.value}, ${KIND_NAMES[props.clip.kind]}, ${lengthLabel(props.clip.length)}`,
)
const tint = computed(() =>
  props.clip.kind === 'solid' && typeof props.clip.colour === 'string' ? props.clip.colour : '',
)

function draw() {
  if (!canvas.value || !props.take || !hasMedia(props.clip)) return
  const from = Math.max(0, Math.floor(props.view.from - props.left))
  const to = Math.min(props.width, Math.ceil(props.view.to - props.left))
  if (to <= from) return
  const seen = { from, to, pxPerSecond: props.pxPerSecond, height: props.height }
  drawFace(canvas.value, props.clip, props.take, seen, draw)
}
onMounted(draw)
onUpdated(draw)
</script>

<template>
  <div
    class="clip"
    :class="[clip.kind, { 'in-hand': inHand, lifted, locked, missing }]"
    :style="{ transform: `translateX(${left}px)`, width: `${width}px`, height: `${height}px` }"
    :data-clip="clip.id"
    role="option"
    :aria-selected="inHand"
    :aria-label="spoken"
    tabindex="0"
    :data-view="`${view.from}-${view.to}`"
  >
    <div class="face" :style="tint ? { background: tint } : {}">
      <canvas ref="canvas" aria-hidden="true" />
      <span class="label" :style="{ left: `${Math.max(0, view.from - left) + 6}px` }">
        <component :is="KIND_ICONS[clip.kind]" class="glyph" aria-hidden="true" />{{ label }}
        <template v-if="missing"> · not ready</template>
      </span>
    </div>
    <template v-if="inHand && !locked">
      <span class="end start" data-edge="start" aria-hidden="true" />
      <span class="end stop" data-edge="end" aria-hidden="true" />
    </template>
  </div>
</template>

<style scoped>
.clip {
  position: absolute;
  top: 2px;
  left: 0;
  user-select: none;
  -webkit-user-select: none;
  touch-action: pan-x pan-y;
  cursor: pointer;
}
.face {
  position: absolute;
  inset: 0 1px 0 0;
  border-radius: 8px 8px 2px 8px;
  overflow: hidden;
  background: var(--video);
  border-left: 1px solid #ffffff2e;
}
.still .face {
  background: var(--still);
}
.sound .face {
  background: var(--sound);
}
.solid .face {
  background: var(--solid);
}
.face::after {
  content: '';
  position: absolute;
  inset: 0;
  background: linear-gradient(#17141a99, transparent 55%);
  pointer-events: none;
}
.video .face::before,
.still .face::before {
  content: '';
  position: absolute;
  inset: auto 0 0;
  height: 3px;
  background: #9474c4;
  z-index: 1;
}
.still .face::before {
  background: #cf7ba0;
}
canvas {
  position: absolute;
  top: 0;
  height: 100%;
}
.label {
  position: absolute;
  top: 3px;
  z-index: 1;
  display: flex;
  align-items: center;
  gap: 4px;
  font-size: 12px;
  font-weight: 600;
  white-space: nowrap;
  text-shadow: 0 1px 3px #000;
  pointer-events: none;
}
.glyph {
  width: 14px;
  height: 14px;
}
.in-hand .face {
  outline: 2px solid var(--accent);
  outline-offset: -2px;
}
.in-hand {
  z-index: 3;
}
.lifted {
  z-index: 5;
  opacity: 0.85;
  filter: drop-shadow(0 6px 12px #000a);
}
.locked {
  opacity: 0.6;
}
.missing .face {
  background-image: repeating-linear-gradient(45deg, #0003 0 8px, transparent 8px 16px);
}
.end {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 14px;
  cursor: ew-resize;
  touch-action: none;
  z-index: 4;
}
.end::after {
  content: '';
  position: absolute;
  top: 22%;
  bottom: 22%;
  width: 5px;
  border-radius: 3px;
  background: var(--accent);
}
.end.start {
  left: -4px;
}
.end.start::after {
  left: 7px;
}
.end.stop {
  right: -4px;
}
.end.stop::after {
  right: 8px;
}
@media (pointer: coarse) {
  .end {
    width: 32px;
  }
  .end.start {
    left: -20px;
  }
  .end.start::after {
    left: 22px;
  }
  .end.stop {
    right: -20px;
  }
  .end.stop::after {
    right: 23px;
  }
}
</style>
