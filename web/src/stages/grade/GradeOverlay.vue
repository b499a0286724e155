<script setup lang="ts">
/** What Grade puts on the picture: the wipe, the measured box, the neutral tap, masks. */
import { computed, ref } from 'vue'
import { isPictured, type Step } from '@/api/types'
import { useGrip } from '@/controls/useGrip'
import { useScreen } from '@/player/inject'
import { useTrialStill } from '@/player/useTrialStill'
import { useGrading } from '@/stores/grading'
import { useHand } from '@/stores/hand'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import WipeOver from '@/picture/WipeOver.vue'
import MaskSurface from '@/picture/MaskSurface.vue'
import { t } from '@/texts'
import { useGrade } from './useGrade'
import { useZoneMasks } from './zoneMasks'

const props = defineProps<{ width: number; height: number }>()
const grading = useGrading()
const project = useProject()
const hand = useHand()
const notes = useNotes()
const { player } = useScreen()
const field = ref<HTMLElement | null>(null)

const ids = computed(() =>
  hand.found.filter(({ clip }) => isPictured(clip)).map(({ clip }) => clip.id ?? ''),
)
const masks = useZoneMasks(useGrade())

const wiping = computed(() => grading.wipe !== null && ids.value.length > 0)
const before = useTrialStill(
  () => (wiping.value && project.document ? { ...project.source, frames: project.frames } : null),
  () => player.shown.value,
  (): Step => ({ kind: 'set_grade', clips: ids.value, values: { on: false } }),
  (error) => notes.problem(error),
  960,
)

function share(event: PointerEvent): { x: number; y: number } {
  const box = field.value?.getBoundingClientRect()
  if (!box) return { x: 0, y: 0 }
  const within = (value: number) => Math.min(1, Math.max(0, value))
  return {
    x: within((event.clientX - box.left) / box.width),
    y: within((event.clientY - box.top) / box.height),
  }
}

/** What is to be tapped on the picture; empty if nothing is. */
const wanted = computed(
  () =>
    ({
      neutral: t('grade.gradeOverlay.tapSomethingThatOughtTo'),
      hue: t('grade.gradeOverlay.tapTheColourThatThe'),
      box: '',
      '': '',
    })[grading.tool],
)

function tap(event: PointerEvent) {
  const canvas = project.document?.canvas
  if (!canvas) return
  const { x, y } = share(event)
  grading.tapped = { x: x * canvas.width, y: y * canvas.height }
  grading.tool = ''
}

const box = computed(() => grading.box)
let begun = { at: { x: 0, y: 0 }, box: [0, 0, 1, 1] as [number, number, number, number] }
const boxer = useGrip<string>({
  slop: 0,
  begin(_, { event }) {
    if (!box.value) return false
    begun = { at: share(event), box: [...box.value] }
    return true
  },
  move: ({ event }, corner) => (grading.box = boxAt(corner, share(event))),
  drop: () => {},
  cancel: () => (grading.box = begun.box),
})

function boxAt(corner: string, now: { x: number; y: number }): [number, number, number, number] {
  const [x, y] = [now.x - begun.at.x, now.y - begun.at.y]
  const [left, top, right, bottom] = begun.box
  if (corner === 'all') {
    const dx = Math.min(1 - right, Math.max(-left, x))
    const dy = Math.min(1 - bottom, Math.max(-top, y))
    return [left + dx, top + dy, right + dx, bottom + dy]
  }
  const less = 0.03
  const west = corner.includes('w')
  const north = corner.includes('n')
  return [
    west ? Math.min(right - less, Math.max(0, left + x)) : left,
    north ? Math.min(bottom - less, Math.max(0, top + y)) : top,
    west ? right : Math.max(left + less, Math.min(1, right + x)),
    north ? bottom : Math.max(top + less, Math.min(1, bottom + y)),
  ]
}

const CORNERS = {
  nw: t('grade.gradeOverlay.upperLeft'),
  ne: t('grade.gradeOverlay.upperRight'),
  se: t('grade.gradeOverlay.lowerRight'),
  sw: t('grade.gradeOverlay.lowerLeft'),
}
const boxStyle = computed(() => {
  const [left = 0, top = 0, right = 1, bottom = 1] = box.value ?? []
  return {
    left: `${left * 100}%`,
    top: `${top * 100}%`,
    width: `${(right - left) * 100}%`,
    height: `${(bottom - top) * 100}%`,
  }
})
</script>

<template>
  <div ref="field" class="over">
    <WipeOver
      v-if="wiping && grading.wipe !== null"
      v-model="grading.wipe"
      :src="before"
      :left="$t('grade.gradeOverlay.before')"
      :right="$t('grade.gradeOverlay.after')"
    />
    <MaskSurface
      v-if="grading.zone && !wanted && masks.masks.value.length"
      :tinted="!grading.matte"
      :owner="masks"
      :width="props.width"
      :height="props.height"
    />
    <div
      v-if="box"
      class="box"
      :style="boxStyle"
      data-test="scope-box"
      role="group"
      :aria-label="$t('grade.gradeOverlay.measuredBox')"
      @pointerdown="boxer.down($event, 'all')"
    >
      <span
        v-for="(told, corner) in CORNERS"
        :key="corner"
        class="corner"
        :class="corner"
        role="button"
        tabindex="0"
        :aria-label="$t('grade.gradeOverlay.cornerOfTheMeasuredBox', { told })"
        @keydown="boxer.key($event, corner)"
        @pointerdown.stop="boxer.down($event, corner)"
      />
    </div>
    <div
      v-if="wanted"
      class="pick"
      role="button"
      tabindex="0"
      :aria-label="wanted"
      data-test="pick"
      @pointerdown="tap"
      @keydown.esc.stop="grading.tool = ''"
    >
      <span>{{ wanted }}</span>
    </div>
  </div>
</template>

<style scoped>
.over,
.pick {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.over {
  pointer-events: none;
}
.over > * {
  pointer-events: auto;
}
.box {
  position: absolute;
  outline: 2px solid #fff;
  box-shadow: 0 0 0 100vmax rgb(22 22 22 / 35%);
  clip-path: none;
  cursor: move;
  touch-action: none;
}
.over:has(.box) {
  overflow: hidden;
}
.corner {
  position: absolute;
  width: 44px;
  height: 44px;
  margin: -22px;
}
.corner::after {
  content: '';
  position: absolute;
  inset: 15px;
  border-radius: 7px 7px 2px 7px;
  background: #fff;
  box-shadow: 0 0 0 2px #161616;
}
.nw {
  left: 0;
  top: 0;
}
.ne {
  left: 100%;
  top: 0;
}
.se {
  left: 100%;
  top: 100%;
}
.sw {
  left: 0;
  top: 100%;
}
.pick {
  cursor: crosshair;
  touch-action: none;
  display: grid;
  place-items: end center;
  padding-bottom: 14px;
}
.pick span {
  background: rgb(22 22 22 / 78%);
  padding: 4px 10px;
  border-radius: 8px 8px 2px 8px;
  font-size: 13px;
}
</style>
