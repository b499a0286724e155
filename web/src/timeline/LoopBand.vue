<script setup lang="ts">
/** What plays again and again, on the ruler: its ends are pulled. */
import { computed } from 'vue'
import { useGrip } from '@/controls/useGrip'
import { useProject } from '@/stores/project'
import { useViewing, type Stretch } from '@/stores/viewing'
import { nearestFrame, tickOf } from '@/time'
import { toPx, toTick } from '@/timeline/scale'

const props = defineProps<{ zoom: number }>()
const project = useProject()
const viewing = useViewing()

const px = (frame: number) => toPx(tickOf(frame, project.rate), props.zoom)
const place = computed(() => {
  const { from, to } = viewing.loop ?? { from: 0, to: 0 }
  return { transform: `translateX(${px(from)}px)`, width: `${Math.max(4, px(to) - px(from))}px` }
})

/** With an end at another frame, two frames from the other one at least. */
function withEnd(loop: Stretch, end: keyof Stretch, at: number): Stretch {
  return end === 'from'
    ? { ...loop, from: Math.min(Math.max(0, at), loop.to - 2) }
    : { ...loop, to: Math.max(Math.min(project.frames, at), loop.from + 2) }
}

let begun: Stretch = { from: 0, to: 0 }
const grip = useGrip<keyof Stretch>({
  begin() {
    if (!viewing.loop) return false
    begun = viewing.loop
    return true
  },
  move({ dx }, end) {
    const by = nearestFrame(toTick(dx, props.zoom), project.rate)
    viewing.loop = withEnd(begun, end, begun[end] + by)
  },
  drop() {},
  cancel: () => (viewing.loop = begun),
})

/** An arrow key moves an end by a frame, with Shift by ten. */
function nudge(event: KeyboardEvent, end: keyof Stretch) {
  const way = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
  if (!way || !viewing.loop) return
  event.preventDefault()
  event.stopPropagation()
  viewing.loop = withEnd(viewing.loop, end, viewing.loop[end] + way * (event.shiftKey ? 10 : 1))
}
</script>

<template>
  <div v-if="viewing.loop" class="loop" :style="place" data-test="loop">
    <span
      v-for="end in ['from', 'to'] as const"
      :key="end"
      class="end"
      :class="end"
      role="slider"
      tabindex="0"
      :aria-label="
        end === 'from'
          ? $t('timeline.loopBand.playsAgainFrom')
          : $t('timeline.loopBand.playsAgainUpTo')
      "
      :aria-valuenow="viewing.loop[end]"
      :aria-valuemin="0"
      :aria-valuemax="project.frames"
      :data-test="`loop-${end}`"
      @pointerdown.stop="grip.down($event, end)"
      @keydown="nudge($event, end)"
    />
  </div>
</template>

<style scoped>
.loop {
  position: absolute;
  left: 0;
  bottom: 0;
  height: 8px;
  background: rgb(255 138 107 / 45%);
  border-radius: 4px;
  pointer-events: none;
}
.end {
  position: absolute;
  bottom: -6px;
  width: 24px;
  height: 28px;
  cursor: ew-resize;
  pointer-events: auto;
  touch-action: none;
}
.end::after {
  content: '';
  position: absolute;
  bottom: 6px;
  width: 4px;
  height: 14px;
  border-radius: 2px;
  background: var(--accent);
}
.from {
  left: -12px;
}
.from::after {
  left: 12px;
}
.to {
  right: -12px;
}
.to::after {
  right: 12px;
}
</style>
