<script setup lang="ts">
/** Moments of a clip on the timeline: its markers, the beats found in it, where it has keys. */
import { computed } from 'vue'
import { markColour } from '@/api/kinds'
import { TICKS_PER_SECOND, type Clip, type Marker } from '@/api/types'
import { keyedProps } from '@/motion/props'
import { BEAT_ROOM, beatsIn, roomy } from './beats'
import { toPx, toTick } from './scale'

const props = defineProps<{
  clip: Clip
  pxPerSecond: number
  width: number
  inHand: boolean
}>()
const emit = defineEmits<{ mark: [marker: Marker] }>()

const markers = computed(() =>
  (props.clip.markers ?? [])
    .map((marker) => ({ marker, px: (marker.at / TICKS_PER_SECOND) * props.pxPerSecond }))
    .filter(({ px }) => px >= 0 && px <= props.width),
)

const marks = computed(() => markers.value.filter(({ marker }) => !marker.beat))
const beats = computed(() =>
  roomy(beatsIn(props.clip), toTick(BEAT_ROOM, props.pxPerSecond)).map(({ at, bar }) => ({
    bar,
    px: toPx(at, props.pxPerSecond),
  })),
)

/** Where anything of the clip has a key. */
const keyed = computed(() => {
  if (!props.inHand) return []
  const ticks = new Set(keyedProps(props.clip).flatMap(({ prop }) => prop.keys.map(({ at }) => at)))
  return [...ticks].map((at) => (at / TICKS_PER_SECOND) * props.pxPerSecond)
})
</script>

<template>
  <button
    v-for="{ marker, px } in marks"
    :key="marker.id"
    class="mark-of"
    :style="{ left: `${px}px` }"
    :aria-label="
      $t('timeline.timelineClip.marker', {
        name: marker.name || $t('timeline.timelineClip.withoutAName'),
      })
    "
    :title="marker.name || $t('timeline.timelineClip.unnamedMarker')"
    @pointerdown.stop
    @click.stop="emit('mark', marker)"
  >
    <svg viewBox="0 0 14 20" aria-hidden="true">
      <path d="M7 1 13 7 7 19 1 7Z" :style="{ fill: markColour(marker.tag) }" />
    </svg>
  </button>
  <i
    v-for="{ bar, px } in beats"
    :key="`beat${px}`"
    class="beat"
    :class="{ bar }"
    :style="{ left: `${px}px` }"
    aria-hidden="true"
  />
  <svg
    v-for="px in keyed"
    :key="`key${px}`"
    class="key-of"
    viewBox="0 0 14 20"
    :style="{ left: `${px}px` }"
    aria-hidden="true"
  >
    <path d="M7 1 13 7 7 19 1 7Z" />
  </svg>
</template>

<style scoped>
.mark-of {
  position: absolute;
  bottom: 0;
  width: 24px;
  height: 26px;
  margin-left: -12px;
  padding: 0;
  border: 0;
  background: none;
  z-index: 4;
}
.mark-of svg {
  width: 12px;
  height: 18px;
}
.mark-of path {
  stroke: #17141a;
}
.beat {
  position: absolute;
  bottom: 0;
  width: 1px;
  height: 8px;
  background: #ffffffb0;
  pointer-events: none;
}
.beat.bar {
  width: 2px;
  height: 14px;
  margin-left: -0.5px;
  background: #fff;
}
.key-of {
  position: absolute;
  bottom: 3px;
  width: 9px;
  height: 13px;
  margin-left: -4px;
  pointer-events: none;
  z-index: 3;
}
.key-of path {
  fill: #fff;
  stroke: #17141a;
  stroke-width: 1.5;
}
</style>
