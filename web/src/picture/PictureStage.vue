<script setup lang="ts">
import { useElementBounding, useElementSize, useWindowSize } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, watch, watchEffect, type Component } from 'vue'
import { usePhone } from '@/look/phone'
import { placeOnPhone } from '@/look/place'
import { useScreen } from '@/player/inject'
import CompareOver from './CompareOver.vue'
import GuideLines from './GuideLines.vue'
import FingerLoupe from './FingerLoupe.vue'
import LookCloser from './LookCloser.vue'
import PictureHandles from './PictureHandles.vue'
import { useExtents } from './useExtents'
import { useView } from './useView'
import TransportBar from './TransportBar.vue'
import WallOver from './WallOver.vue'
import { useAngles } from '@/stores/angles'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'

defineProps<{
  /** What the stage puts on the picture, instead of plain handles. */
  overlay?: Component
  /** On a phone: what of the stage is always needed. */
  side?: Component
  /** What lies over the picture, playing or not. */
  band?: Component
  /** On a phone: whether there is room for columns beside the picture, or a row below it. */
  beside?: boolean
  mirrored?: boolean
}>()
const project = useProject()
const { phone } = usePhone()
const { player, canvas, video } = useScreen()
const asCanvas = (element: unknown) => (canvas.value = element as HTMLCanvasElement | null)
const asVideo = (element: unknown) => (video.value = element as HTMLVideoElement | null)
useExtents()
/** Pixels of width from which the bar below has room to tell the shape of the picture. */
const ROOM_FOR_SHAPE = 360
const room = ref<HTMLElement | null>(null)
const { width, height } = useElementSize(room)
const around = useElementBounding(room)
const notes = useNotes()
watchEffect(() => {
  const [left, bottom, width] = [around.left.value, around.bottom.value, around.width.value]
  notes.place = width > 160 ? { left, bottom, width } : null
})
onBeforeUnmount(() => (notes.place = null))

const angles = useAngles()
// A phone's page makes room for what is shown; elsewhere that has the room there is.
const page = useWindowSize()
watchEffect(() => {
  angles.place = phone.value
    ? placeOnPhone({ width: page.width.value, height: page.height.value })
    : { width: Math.round(width.value), height: Math.round(height.value) }
})
/** The largest box of the shape of what is shown that fits. */
const fitted = computed(() => {
  const { width: across, height: down } = angles.shape
  const factor = Math.min(width.value / across, height.value / down)
  return { width: Math.floor(across * factor), height: Math.floor(down * factor) }
})
/** Width of an upright picture as high as the place that it has. */
const upright = computed(() => {
  const shape = project.document?.canvas ?? { width: 1080, height: 1920 }
  return Math.floor((height.value * shape.width) / shape.height)
})
const look = useView({ width, height }, fitted)
const box = look.size
const closer = computed(() => ({
  percent: percent.value,
  zoom: look.view.value.zoom,
  moving: look.moving.value,
  onCloser: () => look.zoomBy(2),
  onFarther: () => look.zoomBy(0.5),
  onFit: look.fit,
  onMove: () => (look.moving.value = !look.moving.value),
}))
watch(
  () => look.view.value.zoom,
  (zoom) => player.sharpen(zoom),
)
const percent = computed(() => {
  const shape = project.document?.canvas
  return shape ? Math.round((box.value.width / shape.width) * 100) : 0
})
</script>

<template>
  <section
    class="stage"
    :class="{ beside, mirrored }"
    :aria-label="$t('picture.pictureStage.picture')"
  >
    <aside v-if="side || beside" class="side" :aria-label="$t('picture.pictureStage.ofTheStage')">
      <LookCloser v-if="beside" v-bind="closer" short />
      <span class="grow" />
      <component :is="side" v-if="side" />
    </aside>
    <div ref="room" class="room" @wheel="look.wheel">
      <div
        class="box"
        :style="{
          width: `${box.width}px`,
          height: `${box.height}px`,
          left: `calc(50% + ${look.view.value.x - box.width / 2}px)`,
          top: `calc(50% + ${look.view.value.y - box.height / 2}px)`,
        }"
      >
        <canvas
          :ref="asCanvas"
          class="sheet"
          data-test="still"
          :data-frame="player.drawn.value"
          :aria-label="$t('picture.pictureStage.thePictureAtThePlayhead')"
        />
        <video
          :ref="asVideo"
          class="sheet"
          :class="{ away: !player.moving.value }"
          playsinline
          data-test="moving"
        />
        <WallOver v-if="angles.shown.length" v-bind="box" />
        <GuideLines v-else-if="box.width" v-bind="box" />
        <template v-if="box.width && !player.playing.value && !angles.shown.length">
          <component :is="overlay ?? PictureHandles" v-bind="box" />
          <CompareOver />
        </template>
        <span v-if="project.trouble && project.waiting" class="behind tiny" data-test="behind">
          {{ $t('picture.pictureStage.withoutYourLast', project.waiting) }}
        </span>
        <div v-if="project.document && !project.length" class="empty first">
          <strong>{{ $t('picture.pictureStage.yourFilmStartsHere') }}</strong>
          <span>{{ $t('picture.pictureStage.bringInTakesThenPlace') }}</span>
        </div>
      </div>
      <div
        v-if="look.moving.value"
        class="sheet hand"
        data-test="move-picture"
        aria-hidden="true"
        @pointerdown="look.down"
      />
      <component :is="band" v-if="band && box.width" />
      <FingerLoupe :canvas="canvas" :room="room" />
    </div>
    <TransportBar :player="player" :frames="project.frames" :rate="project.rate" :upright="beside">
      <LookCloser v-bind="closer" :short="phone || width < ROOM_FOR_SHAPE" />
    </TransportBar>
  </section>
</template>

<style scoped>
.stage {
  display: grid;
  grid-template: minmax(0, 1fr) auto / minmax(0, 1fr);
  container: picture / inline-size;
  background: var(--neutral);
  min-height: 0;
  min-width: 0;
}
.room {
  display: grid;
  place-items: center;
  min-height: 0;
  min-width: 0;
  overflow: hidden;
  position: relative;
}
.box {
  position: absolute;
  background: #000;
  flex: none;
}
.sheet {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.hand {
  cursor: grab;
  touch-action: none;
}
.away {
  opacity: 0;
}
.behind {
  position: absolute;
  left: 8px;
  bottom: 8px;
  padding: 3px 8px;
  border-radius: 8px 8px 2px 8px;
  background: rgb(23 20 26 / 82%);
  color: var(--text);
}
.phone .stage {
  grid-template: 'room room' minmax(0, 1fr) 'side bar' 52px / minmax(0, 1fr) auto;
}
.phone .stage.mirrored {
  grid-template: 'room room' minmax(0, 1fr) 'bar side' 52px / auto minmax(0, 1fr);
}
.phone .stage.beside {
  grid-template: 'side room bar' minmax(0, 1fr) / minmax(0, 1fr) auto minmax(0, 1fr);
}
.phone .stage.beside.mirrored {
  grid-template: 'bar room side' minmax(0, 1fr) / minmax(0, 1fr) auto minmax(0, 1fr);
}
.phone .beside .room {
  width: min(v-bind('`${upright}px`'), 100vw - 120px);
}
.phone .room {
  grid-area: room;
}
.grow {
  flex: 1;
}
.phone .side {
  grid-area: side;
  display: flex;
  align-items: center;
  gap: 2px;
  padding: 0 2px;
  overflow-x: auto;
  scrollbar-width: none;
}
.phone .beside .side {
  flex-direction: column;
  justify-content: flex-end;
  gap: 2px;
  padding: 4px 0;
  overflow: hidden auto;
}
.first {
  position: absolute;
  inset: 0;
  background: var(--neutral);
}
</style>
