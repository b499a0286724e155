<script setup lang="ts">
/** The timeline's markers on the ruler: tap to go there, tap again to name. */
import { computed } from 'vue'
import type { Marker } from '@/api/types'
import { useScreen } from '@/player/inject'
import { useProject } from '@/stores/project'
import { markColour } from '@/api/kinds'
import { toPx } from '@/timeline/scale'
import { frameOf } from '@/time'

const props = defineProps<{ zoom: number; view: { from: number; to: number } }>()
const emit = defineEmits<{ name: [marker: Marker] }>()
const project = useProject()
const { player } = useScreen()

const shown = computed(() =>
  project.markers
    .map((marker) => ({ marker, px: toPx(marker.at, props.zoom) }))
    .filter(({ px }) => px > props.view.from - 40 && px < props.view.to + 40),
)

function choose(marker: Marker) {
  const frame = frameOf(marker.at, project.rate)
  if (player.frame.value === frame) emit('name', marker)
  else player.seek(frame)
}
</script>

<template>
  <button
    v-for="{ marker, px } in shown"
    :key="marker.id"
    class="flag"
    :style="{ transform: `translateX(${px}px)` }"
    :aria-label="
      $t('timeline.markerFlags.marker', {
        name: marker.name || $t('timeline.markerFlags.withoutAName'),
      })
    "
    :title="
      $t('timeline.markerFlags.tapToGoThereTap', {
        name: marker.name || $t('timeline.markerFlags.unnamedMarker'),
      })
    "
    data-test="marker"
    @pointerdown.stop
    @click.stop="choose(marker)"
  >
    <svg viewBox="0 0 14 20" aria-hidden="true">
      <path d="M7 1 13 7 7 19 1 7Z" :style="{ fill: markColour(marker.tag) }" />
    </svg>
    <span v-if="marker.name" class="tiny">{{ marker.name }}</span>
  </button>
</template>

<style scoped>
.flag {
  position: absolute;
  left: -12px;
  top: 0;
  z-index: 1;
  display: flex;
  align-items: center;
  gap: 3px;
  height: 100%;
  min-width: 24px;
  padding: 0 5px;
  border: 0;
  background: none;
  color: var(--soft);
  white-space: nowrap;
}
.tiny {
  background: #1a161e;
  padding: 0 4px 0 1px;
}
svg {
  width: 14px;
  height: 20px;
  flex: none;
}
path {
  stroke: #17141a;
}
</style>
