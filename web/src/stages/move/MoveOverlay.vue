<script setup lang="ts">
/** What Move puts on the picture: handles of the place, the path, the warp; a sheet to draw on. */
import { computed } from 'vue'
import { useScreen } from '@/player/inject'
import { useLayer } from '@/inhand/useLayer'
import { useHand } from '@/stores/hand'
import { useMoving } from '@/stores/moving'
import { frameTicks } from '@/time'
import { useProject } from '@/stores/project'
import { frameOfMask, type Frame } from '@/picture/masks'
import MotionPath from '@/picture/MotionPath.vue'
import PictureHandles from '@/picture/PictureHandles.vue'
import { unmappedShift, mapped, type Point } from '@/picture/placing'
import StrokeSurface from '@/picture/StrokeSurface.vue'
import { usePlacing } from '@/picture/usePlacing'
import { useTaps } from '@/picture/useTaps'
import WarpHandles from '@/picture/WarpHandles.vue'

const props = defineProps<{ width: number; height: number }>()
const moving = useMoving()
const project = useProject()
const hand = useHand()
const layer = useLayer()
const { player } = useScreen()
const scale = computed(() => props.width / placing.canvas.value.width)
const placing = usePlacing(
  player,
  computed(() => scale.value),
)
const { tapAt } = useTaps(player)

const clip = computed(() => placing.clip.value)
const aspect = computed(() => {
  const size = placing.size.value
  return size ? size.width / size.height : 1
})
const frame = computed<Frame | null>(() => {
  const corners = placing.corners.value
  return corners ? frameOfMask(corners, aspect.value, scale.value) : null
})
const warping = computed(() => moving.part === 'warp' && clip.value?.warp && frame.value)

/** From the screen to a position, as the place counts it. */
function toPosition(point: Point): [number, number] {
  const { left, top, width, height } = placing.area.value
  const pivot = placing.placed.value?.pivot ?? { x: 0, y: 0 }
  const origin = mapped(placing.shown.value, { x: 0, y: 0 })
  const { x, y } = unmappedShift(placing.shown.value, {
    x: point.x / scale.value - origin.x,
    y: point.y / scale.value - origin.y,
  })
  const round = (value: number) => Math.round(value * 10) / 10
  return [round(x - left - width / 2 - pivot.x), round(y - top - height / 2 - pivot.y)]
}

/** From the playhead to the end of the layer; a layer whose end is near takes at least a second. */
async function drawPath(points: Point[]) {
  const one = clip.value
  if (!one || points.length < 3) return
  const step = frameTicks(project.rate)
  const left = one.length - placing.local.value - step
  const at = left > 10 * step ? placing.local.value : 0
  const every = Math.ceil(points.length / 3000)
  moving.tool = ''
  moving.path = 'place/position'
  await layer.send({
    kind: 'draw_motion',
    clip: one.id ?? '',
    points: points.filter((_, index) => index % every === 0).map(toPosition),
    at,
    length: Math.max(step, one.length - at - step),
    tolerance: Math.max(1, placing.canvas.value.width * 0.006),
  })
}
</script>

<template>
  <div class="over">
    <StrokeSurface
      v-if="moving.tool === 'draw' && clip"
      :width="width"
      :height="height"
      :line="4"
      :told="$t('move.moveOverlay.drawThePathThatThe')"
      @drawn="drawPath"
    />
    <WarpHandles
      v-else-if="warping && clip && frame"
      :width="width"
      :height="height"
      :player="player"
      :clip="clip"
      :local="placing.local.value"
      :aspect="aspect"
      :frame="frame"
    />
    <template v-else>
      <PictureHandles
        :width="width"
        :height="height"
        tappable
        :pivot="moving.pivoting ? 'handled' : 'shown'"
        :sides="!moving.evenSize"
        leans
        @tap="tapAt"
      />
      <MotionPath
        v-if="hand.one"
        :width="width"
        :height="height"
        :player="player"
        :placing="placing"
      />
    </template>
  </div>
</template>

<style scoped>
.over {
  position: absolute;
  inset: 0;
}
</style>
