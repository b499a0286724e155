<script setup lang="ts">
/** A transition at a join: how long it takes, its ends to drag. */
import { computed } from 'vue'
import type { Clip, Transition } from '@/api/types'
import { useDraft } from '@/controls/useDraft'
import { useGrip } from '@/controls/useGrip'
import { useProject } from '@/stores/project'
import { TRANSITIONS } from './transitions'
import { toPx, toTick } from '@/timeline/scale'
import { frameTicks, lengthLabel } from '@/time'

const props = defineProps<{ clip: Clip; transition: Transition; zoom: number; height: number }>()
defineEmits<{ choose: [] }>()
const project = useProject()
const dragged = useDraft<number>(() => props.transition)

const half = computed(() => dragged.value ?? props.transition.length / 2)
const name = computed(() => TRANSITIONS.find((one) => one.kind === props.transition.kind)?.name)
const px = computed(() => toPx(half.value, props.zoom))
const at = computed(() => toPx(props.clip.start ?? 0, props.zoom))

const grip = useGrip<1 | -1>({
  slop: 2,
  move({ dx }, way) {
    const step = frameTicks(project.rate)
    const by = toTick(dx * way, props.zoom)
    const from = props.transition.length / 2
    dragged.value = Math.max(step, Math.round((from + by) / step) * step)
  },
  drop() {
    const kept = dragged.value
    if (kept === null || kept * 2 === props.transition.length) {
      dragged.value = null
      return
    }
    const transition = { ...props.transition, length: kept * 2 } as never
    const clip = props.clip.id ?? ''
    project.edit({ kind: 'set_transition', clip, transition, short: 'shorten' })
  },
  cancel: () => (dragged.value = null),
})
</script>

<template>
  <div
    class="join"
    :style="{
      transform: `translateX(${at - px}px)`,
      width: `${Math.max(12, px * 2)}px`,
      height: `${height}px`,
    }"
    :data-join="clip.id"
    @pointerdown.stop
  >
    <button
      class="lens"
      :title="`${name}, ${lengthLabel(half * 2)}`"
      :aria-label="
        $t('timeline.joinMark.before', {
          transition: name,
          clip: clip.name,
          length: lengthLabel(half * 2),
        })
      "
      @click="$emit('choose')"
    >
      <svg viewBox="0 0 100 40" preserveAspectRatio="none" aria-hidden="true">
        <path d="M0 40 Q50 40 100 0 V40Z" class="comes" />
        <path d="M0 0 Q50 0 100 40 H0Z" class="goes" />
      </svg>
      <span v-if="dragged !== null" class="told tiny">{{ lengthLabel(half * 2) }}</span>
    </button>
    <span class="pull left" aria-hidden="true" @pointerdown="grip.down($event, -1)" />
    <span class="pull right" aria-hidden="true" @pointerdown="grip.down($event, 1)" />
  </div>
</template>

<style scoped>
.join {
  position: absolute;
  top: 2px;
  left: 0;
  z-index: 4;
  pointer-events: none;
}
.lens {
  position: absolute;
  inset: 22% 0 auto;
  height: 56%;
  min-height: 20px;
  padding: 0;
  border: 1px solid #fff9;
  border-radius: 8px 8px 2px 8px;
  background: #17141acc;
  overflow: hidden;
  pointer-events: auto;
}
.lens svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.goes {
  fill: #cdc4d666;
}
.comes {
  fill: #cdc4d6aa;
}
.told {
  position: relative;
  color: #fff;
  font-weight: 600;
  text-shadow: 0 1px 2px #000;
}
.pull {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 12px;
  cursor: ew-resize;
  pointer-events: auto;
  touch-action: none;
}
.pull.left {
  left: -10px;
}
.pull.right {
  right: -10px;
}
@media (pointer: coarse) {
  .pull {
    width: 24px;
  }
  .pull.left {
    left: -20px;
  }
  .pull.right {
    right: -20px;
  }
}
</style>
