<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref, watch, type Component } from 'vue'
import { useScreen } from '@/player/inject'
import PictureHandles from './PictureHandles.vue'
import { useExtents } from './useExtents'
import { useView } from './useView'
import TransportBar from './TransportBar.vue'
import { useProject } from '@/stores/project'

defineProps<{
  /** What the stage puts on the picture, instead of plain handles. */
  overlay?: Component
}>()
const project = useProject()
const { player, canvas, video } = useScreen()
const asCanvas = (element: unknown) => (canvas.value = element as HTMLCanvasElement | null)
const asVideo = (element: unknown) => (video.value = element as HTMLVideoElement | null)
useExtents()
const room = ref<HTMLElement | null>(null)
const { width, height } = useElementSize(room)

/** The largest box of the project's shape that fits. */
const fitted = computed(() => {
  const shape = project.document?.canvas ?? { width: 1080, height: 1920 }
  const factor = Math.min(width.value / shape.width, height.value / shape.height)
  return { width: Math.floor(shape.width * factor), height: Math.floor(shape.height * factor) }
})
const look = useView({ width, height }, fitted)
const box = look.size
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
  <section class="stage" aria-label="Picture">
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
          aria-label="The picture at the playhead"
        />
        <video
          :ref="asVideo"
          class="sheet"
          :class="{ away: !player.moving.value }"
          playsinline
          data-test="moving"
        />
        <template v-if="box.width && !player.playing.value">
          <component :is="overlay ?? PictureHandles" v-bind="box" />
        </template>
        <span v-if="project.trouble && project.waiting" class="behind tiny" data-test="behind">
          Without your last {{ project.waiting === 1 ? 'step' : `${project.waiting} steps` }}
        </span>
        <div v-if="project.document && !project.length" class="empty first">
          <strong>Your film starts here</strong>
          <span>Bring in takes, then place one on the timeline.</span>
        </div>
      </div>
      <div
        v-if="look.moving.value"
        class="sheet hand"
        data-test="move-picture"
        aria-hidden="true"
        @pointerdown="look.down"
      />
    </div>
    <TransportBar
      :percent="percent"
      :zoom="look.view.value.zoom"
      :moving="look.moving.value"
      @closer="look.zoomBy(2)"
      @farther="look.zoomBy(0.5)"
      @fit="look.fit"
      @move="look.moving.value = !look.moving.value"
    />
  </section>
</template>

<style scoped>
.stage {
  display: grid;
  grid-template-rows: 1fr auto;
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
.room {
  position: relative;
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
.first {
  position: absolute;
  inset: 0;
  background: var(--neutral);
}
</style>
