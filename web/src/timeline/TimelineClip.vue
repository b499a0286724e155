<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import type { Clip, Marker, Take } from '@/api/types'
import { t } from '@/texts'
import AngleBand from '@/timeline/AngleBand.vue'
import { TINY } from '@/timeline/crowds'
import ClipMarks from '@/timeline/ClipMarks.vue'
import PoseBand from '@/timeline/PoseBand.vue'
import { drawFace } from '@/timeline/faces'
import { fillCss } from '@/picture/fills'
import { KIND_ICONS, KIND_NAMES, KIND_TINTS, tagColour } from '@/api/kinds'
import { paceOf } from '@/motion/pace'
import { useProject } from '@/stores/project'
import { useWaves } from '@/stores/waves'
import { clockOf, frameOf, lengthLabel } from '@/time'

const props = defineProps<{
  clip: Clip
  take: Take | undefined
  left: number
  width: number
  height: number
  pxPerSecond: number
  /** Pixels of the timeline between which faces are drawn. */
  nearFrom: number
  nearTo: number
  /** The scale is changing: the face is stretched, and drawn anew when it rests. */
  moving: boolean
  /** Where its name begins, in pixels from its start. */
  labelAt: number
  inHand: boolean
  lifted: boolean
  locked: boolean
  missing: boolean
  /** Frames by which a sound is late for its video. */
  late: number
  /** Ticks by which its source is being slipped. */
  slip: number
  /** Name of its track. */
  track?: string
  /** Whether Tab comes to it; arrows go on from there. */
  tabStop?: boolean
}>()
const project = useProject()
const waves = useWaves()
const emit = defineEmits<{ mark: [marker: Marker] }>()

const canvas = ref<HTMLCanvasElement | null>(null)
const label = computed(() => props.clip.name || KIND_NAMES[props.clip.kind])
const tint = computed(() => (props.clip.kind === 'solid' ? fillCss(props.clip.fill) : ''))

const pace = computed(() => paceOf(props.clip))
const sync = computed(() => {
  const { late } = props
  return !late
    ? ''
    : late > 0
      ? t('timeline.timelineClip.late', { frames: late })
      : t('timeline.timelineClip.early', { frames: -late })
})
/** What is said of it: name, kind, track, start, length, and what is particular. */
const spoken = computed(() => {
  const on = props.track ? t('timeline.timelineClip.on', { track: props.track }) : ''
  const start = t('timeline.timelineClip.at', {
    time: clockOf(frameOf(props.clip.start ?? 0, project.rate), project.rate),
  })
  const amiss = props.missing ? t('timeline.timelineClip.notReady') : ''
  const parts = [label.value, KIND_NAMES[props.clip.kind], on, start]
  const more = [lengthLabel(props.clip.length), pace.value, sync.value, amiss]
  return [...parts, ...more, props.locked ? t('timeline.timelineClip.locked') : '']
    .filter(Boolean)
    .join(', ')
})
let drawnAt = { pxPerSecond: 0, from: 0, width: 0 }

function draw() {
  if (!canvas.value || !props.take || props.moving || props.height < 1) return
  const from = Math.max(0, Math.floor(props.nearFrom - props.left))
  const to = Math.min(props.width, Math.ceil(props.nearTo - props.left))
  if (to <= from) return
  const { pxPerSecond, height, slip } = props
  drawnAt = { pxPerSecond, from, width: to - from }
  const seen = { from, to, pxPerSecond, height, slip, look: waves.look }
  drawFace(canvas.value, props.clip, props.take, seen, draw)
}

function stretch() {
  if (!canvas.value || !drawnAt.pxPerSecond) return
  const factor = props.pxPerSecond / drawnAt.pxPerSecond
  canvas.value.style.left = `${drawnAt.from * factor}px`
  canvas.value.style.width = `${drawnAt.width * factor}px`
}

onMounted(draw)
watch(() => props.pxPerSecond, stretch, { flush: 'post' })
watch(
  () => [
    props.clip,
    props.take?.strip,
    props.take?.has_peaks,
    props.slip,
    props.height,
    props.width > TINY,
    props.moving,
    waves.look.apart,
    waves.look.decibels,
    props.moving || `${props.width} ${props.nearFrom - props.left} ${props.nearTo - props.left}`,
  ],
  draw,
  { flush: 'post' },
)
</script>

<template>
  <div
    class="clip"
    :class="[clip.kind, { 'in-hand': inHand, lifted, locked, missing }]"
    :style="{
      '--tint': KIND_TINTS[clip.kind],
      transform: `translateX(${left}px)`,
      width: `${width}px`,
      height: `${height}px`,
    }"
    :data-clip="clip.id"
    role="gridcell"
    :aria-selected="inHand"
    :aria-label="spoken"
    :tabindex="tabStop ? 0 : -1"
  >
    <div class="face" :style="tint ? { background: tint } : {}">
      <canvas v-if="width > TINY" ref="canvas" aria-hidden="true" />
      <span v-if="width > TINY" class="label" :style="{ left: `${labelAt + 6}px` }">
        <component :is="KIND_ICONS[clip.kind]" class="glyph" aria-hidden="true" />{{ label }}
        <template v-if="missing">
          ·
          {{
            take?.missing
              ? $t('timeline.timelineClip.fileMissing')
              : $t('timeline.timelineClip.notReady')
          }}</template
        >
        <span v-if="pace" class="chip">{{ pace }}</span>
        <span v-if="sync" class="chip warn">{{ sync }}</span>
        <span
          v-if="clip.rides && !sync"
          class="chip"
          :title="$t('timeline.timelineClip.movesAlongWithAnotherClip')"
          >{{ $t('timeline.timelineClip.along') }}</span
        >
      </span>
      <AngleBand
        v-if="clip.kind === 'multicam'"
        :clip="clip"
        :px-per-second="pxPerSecond"
        :from="nearFrom - left"
        :to="nearTo - left"
        :rolls="inHand && !locked"
      />
      <PoseBand
        v-else-if="clip.kind === 'mouth'"
        :clip="clip"
        :px-per-second="pxPerSecond"
        :from="nearFrom - left"
        :to="nearTo - left"
      />
      <span v-if="clip.tag" class="tag" :style="{ background: tagColour(clip.tag) }" />
    </div>
    <ClipMarks
      :clip="clip"
      :px-per-second="pxPerSecond"
      :width="width"
      :in-hand="inHand"
      @mark="emit('mark', $event)"
    />
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
  background: var(--tint);
  border-left: 1px solid #ffffff2e;
}
:is(.group, .multicam, .mouth) .face {
  box-shadow: inset 0 0 0 1px #ffffff40;
}
:is(.group, .multicam, .mouth) .face canvas {
  opacity: 0.45;
}
.chip {
  padding: 0 6px;
  border-radius: 6px 6px 2px 6px;
  background: #17141ab3;
  font-weight: 500;
}
.chip.warn {
  background: #e0a63a;
  color: #2b1d00;
  text-shadow: none;
  font-weight: 700;
}
.tag {
  position: absolute;
  right: 0;
  top: 0;
  bottom: 0;
  width: 5px;
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
