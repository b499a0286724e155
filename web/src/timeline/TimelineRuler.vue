<script setup lang="ts">
import { computed, ref } from 'vue'
import { useGrip } from '@/controls/useGrip'
import { useProject } from '@/stores/project'
import { rulerMarks } from '@/timeline/scale'
import { usePlayheadSlider } from '@/timeline/usePlayheadSlider'
import { t } from '@/texts'
import { wholeClock } from '@/time'

const props = defineProps<{
  view: { from: number; to: number }
  zoom: number
  /** Pixels from the beginning. */
  playhead: number
}>()
/** Pixels from the beginning while a finger is down, null when it is lifted. */
const emit = defineEmits<{ scrub: [px: number | null] }>()

const project = useProject()
const slider = usePlayheadSlider()
const ruler = ref<HTMLElement | null>(null)

const marks = computed(() => {
  const fps = project.rate.num / project.rate.den
  const label = (seconds: number) => {
    if (Number.isInteger(seconds)) return wholeClock(seconds)
    const frames = (seconds % 1) * Math.ceil(fps)
    const onFrame = Math.abs(frames - Math.round(frames)) < 1e-6
    return onFrame
      ? `·${String(Math.round(frames)).padStart(2, '0')}`
      : t('timeline.timelineRuler.milliseconds', { n: ((seconds % 1) * 1000).toFixed(1) })
  }
  return rulerMarks(props.view.from - 80, props.view.to, props.zoom, fps, label)
})

const grip = useGrip({
  slop: 0,
  move: ({ x }) => emit('scrub', x - (ruler.value?.getBoundingClientRect().left ?? 0)),
  drop: () => emit('scrub', null),
  cancel: () => emit('scrub', null),
})
</script>

<template>
  <div
    ref="ruler"
    class="ruler"
    v-bind="slider"
    data-test="ruler"
    @pointerdown.prevent="grip.down($event)"
    @dragstart.prevent
  >
    <span
      v-for="mark in marks"
      :key="mark.px"
      class="notch"
      :class="{ large: mark.label }"
      :style="{ transform: `translateX(${mark.px}px)` }"
      >{{ mark.label }}</span
    >
    <slot />
    <svg
      class="head"
      viewBox="0 0 20 30"
      :style="{ transform: `translateX(${playhead}px)` }"
      aria-hidden="true"
    >
      <path d="M10 1 19 10 10 29 1 10Z" />
    </svg>
  </div>
</template>

<style scoped>
.ruler {
  position: relative;
  flex: 1;
  cursor: pointer;
  touch-action: none;
  margin-left: 12px;
}
.notch {
  position: absolute;
  left: 0;
  bottom: 0;
  height: 6px;
  border-left: 1px solid #5b5263;
  font-size: 12px;
  color: var(--quiet);
  white-space: nowrap;
}
.notch.large {
  height: 24px;
  padding-left: 4px;
  border-left-color: #453c4e;
}
.head {
  position: absolute;
  left: -10px;
  bottom: 0;
  width: 20px;
  height: 28px;
  fill: var(--text);
  filter: drop-shadow(0 1px 2px #000a);
  pointer-events: none;
}
</style>
