<script setup lang="ts">
/** A scope as a band over the picture: dragged by its middle, sized by its lower edge, put away. */
import { useElementSize, useLocalStorage } from '@vueuse/core'
import { computed, ref } from 'vue'
import IconX from '~icons/tabler/x'
import { useGrip } from '@/controls/useGrip'
import { useGrading } from '@/stores/grading'
import ScopeView from './ScopeView.vue'
import { useScopes } from './useScopes'

const grading = useGrading()
const { visible, measured } = useScopes()
const band = ref<HTMLElement | null>(null)
const room = computed(() => band.value?.parentElement ?? null)
const { height: roomHeight } = useElementSize(room)

const LEAST = 64
const place = useLocalStorage('velvet-kite.scope-band', { top: 6, height: 88 })
const kept = computed(() => {
  const height = Math.min(
    Math.max(LEAST, place.value.height),
    Math.max(LEAST, roomHeight.value - 8),
  )
  const top = Math.min(Math.max(0, place.value.top), Math.max(0, roomHeight.value - height))
  return { top, height }
})

const grip = useGrip<{ edge: boolean; top: number; height: number }>({
  move({ dy }, { edge, top, height }) {
    place.value = edge ? { top, height: Math.max(LEAST, height + dy) } : { top: top + dy, height }
  },
  drop: () => (place.value = { ...kept.value }),
})

function nudge(event: KeyboardEvent, edge: boolean) {
  const by = { ArrowUp: -8, ArrowDown: 8 }[event.key]
  if (!by) return
  event.preventDefault()
  event.stopPropagation()
  const { top, height } = kept.value
  place.value = edge ? { top, height: height + by } : { top: top + by, height }
}
</script>

<template>
  <div
    ref="band"
    class="band"
    :style="{ top: `${kept.top}px`, height: `${kept.height}px` }"
    data-test="scope-band"
  >
    <div
      class="ground"
      role="slider"
      tabindex="0"
      :aria-label="$t('grade.scopeBand.placeOfTheScopeArrow')"
      :aria-valuenow="Math.round(kept.top)"
      @pointerdown="grip.down($event, { edge: false, ...kept })"
      @keydown="nudge($event, false)"
    >
      <ScopeView
        v-for="kind in visible"
        :key="kind"
        class="view"
        :kind="kind"
        :measured="measured"
      />
    </div>
    <button
      class="btn btn-bare away"
      :aria-label="$t('grade.scopeBand.putTheScopeAway')"
      data-test="scope-band-off"
      @click="grading.banded = false"
    >
      <IconX aria-hidden="true" />
    </button>
    <button
      class="edge"
      :aria-label="$t('grade.scopeBand.heightOfTheScopeArrow')"
      @pointerdown="grip.down($event, { edge: true, ...kept })"
      @keydown="nudge($event, true)"
    />
  </div>
</template>

<style scoped>
.band {
  position: absolute;
  left: 6px;
  right: 6px;
  z-index: 3;
}
.ground {
  height: 100%;
  display: grid;
  grid: auto-flow minmax(0, 1fr) / repeat(auto-fit, minmax(104px, 1fr));
  gap: 2px;
  touch-action: none;
  cursor: grab;
}
.view {
  opacity: 0.86;
  border-radius: 12px 12px 3px 12px;
}
.away {
  position: absolute;
  top: 0;
  right: 0;
}
.edge {
  position: absolute;
  left: 25%;
  right: 25%;
  bottom: -22px;
  height: 44px;
  border: 0;
  background: none;
  touch-action: none;
  cursor: row-resize;
}
.edge::after {
  content: '';
  display: block;
  margin: auto;
  width: 36px;
  height: 4px;
  border-radius: 2px;
  background: #cdc4d6;
}
</style>
