<script setup lang="ts">
/** Spots that are tapped on the picture, and dragged to where they belong. */
import { computed, ref } from 'vue'
import { useGrip } from '@/controls/useGrip'
import type { Spot } from '@/motion/quads'
import PictureKnob from './PictureKnob.vue'
import { spotOf, usePictureFrame } from './usePictureFrame'

const props = defineProps<{ width: number; height: number; spots: Spot[]; most: number }>()
const emit = defineEmits<{ set: [spots: Spot[]] }>()
const sheet = ref<SVGSVGElement | null>(null)
const { frame } = usePictureFrame(() => props.width)
const shown = computed(() =>
  props.spots.map(([x, y]) => frame.value?.to({ x, y }) ?? { x: 0, y: 0 }),
)

function at(event: PointerEvent): Spot | null {
  const box = sheet.value?.getBoundingClientRect()
  if (!box || !frame.value) return null
  return spotOf(frame.value, { x: event.clientX - box.left, y: event.clientY - box.top })
}
const setAt = (index: number, to: Spot) =>
  emit(
    'set',
    props.spots.map((spot, other) => (other === index ? to : spot)),
  )

const nothing = () => undefined
const taps = useGrip({
  move: nothing,
  drop: nothing,
  tap({ event }) {
    const spot = at(event)
    if (spot && props.spots.length < props.most) emit('set', [...props.spots, spot])
  },
})

let held: { from: Spot; was: Spot } | null = null
const knobs = useGrip<number>({
  begin(index, { event }) {
    const [from, was] = [at(event), props.spots[index]]
    held = from && was ? { from, was } : null
    return Boolean(held)
  },
  move({ event }, index) {
    const now = at(event)
    if (!held || !now) return
    setAt(index, [held.was[0] + now[0] - held.from[0], held.was[1] + now[1] - held.from[1]])
  },
  drop: nothing,
  cancel: (index) => held && setAt(index, held.was),
})
</script>

<template>
  <svg
    ref="sheet"
    class="sheet"
    :width="width"
    :height="height"
    role="application"
    :aria-label="$t('picture.spotsSurface.tapped')"
    data-test="spots-surface"
    @pointerdown="taps.down($event)"
  >
    <PictureKnob
      v-for="(spot, index) in shown"
      :key="index"
      :x="spot.x"
      :y="spot.y"
      :label="$t('picture.spotsSurface.spot', { n: index + 1 })"
      :test="`spot-${index}`"
      @down="knobs.down($event, index)"
      @key="knobs.key($event, index)"
    />
  </svg>
</template>

<style scoped>
.sheet {
  position: absolute;
  inset: 0;
  touch-action: none;
  cursor: crosshair;
}
</style>
