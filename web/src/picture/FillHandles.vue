<script setup lang="ts">
/** The two ends of a gradient, dragged on the picture. */
import { computed, ref } from 'vue'
import { useDraft } from '@/controls/useDraft'
import { useGrip } from '@/controls/useGrip'
import { t } from '@/texts'
import PictureKnob from './PictureKnob.vue'
import type { Point } from './placing'

const props = defineProps<{
  begin: [number, number]
  end: [number, number]
  round: boolean
  width: number
  height: number
  to: (point: Point) => Point
  back: (point: Point) => Point
}>()
type Ends = { begin: [number, number] } | { end: [number, number] }
const emit = defineEmits<{ trying: [ends: Ends]; set: [ends: Ends] }>()

const NAMES = { begin: t('picture.fillHandles.beginning'), end: t('picture.fillHandles.end') }
const svg = ref<SVGSVGElement | null>(null)
const draft = useDraft<Ends>(() => [props.begin, props.end])
const ends = computed(() => {
  const now = { begin: props.begin, end: props.end, ...draft.value }
  return (['begin', 'end'] as const).map((id) => ({
    id,
    at: now[id],
    ...props.to({ x: now[id][0], y: now[id][1] }),
  }))
})
const radius = computed(() => {
  const [a, b] = ends.value
  return a && b ? Math.hypot(a.x - b.x, a.y - b.y) : 0
})
const grip = useGrip<'begin' | 'end'>({
  move({ x: left, y: top }, which) {
    const box = svg.value?.getBoundingClientRect()
    if (!box) return
    const { x, y } = props.back({ x: left - box.left, y: top - box.top })
    const at: [number, number] = [Math.round(x), Math.round(y)]
    draft.value = which === 'begin' ? { begin: at } : { end: at }
    emit('trying', draft.value)
  },
  drop: () => draft.value && emit('set', draft.value),
  cancel() {
    draft.value = null
    emit('trying', { begin: props.begin })
  },
})
</script>

<template>
  <svg
    ref="svg"
    class="ends"
    :viewBox="`0 0 ${width} ${height}`"
    role="group"
    :aria-label="$t('picture.fillHandles.endsOfTheGradient')"
    data-test="fill-handles"
  >
    <circle v-if="round" class="rim" :cx="ends[0]?.x" :cy="ends[0]?.y" :r="radius" />
    <line class="line" :x1="ends[0]?.x" :y1="ends[0]?.y" :x2="ends[1]?.x" :y2="ends[1]?.y" />
    <PictureKnob
      v-for="one in ends"
      :key="one.id"
      :x="one.x"
      :y="one.y"
      :dark="one.id === 'end'"
      :label="
        $t('picture.fillHandles.ofTheGradientAtArrows', {
          what: NAMES[one.id],
          list: one.at.join(', '),
        })
      "
      :test="`fill-${one.id}`"
      @down="grip.down($event, one.id)"
      @key="grip.key($event, one.id)"
    />
  </svg>
</template>

<style scoped>
.ends {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  overflow: visible;
  touch-action: none;
  pointer-events: none;
}
.line,
.rim {
  fill: none;
  stroke: #fff;
  stroke-width: 2;
  filter: drop-shadow(0 0 1px #000);
}
.rim {
  stroke-dasharray: 5 5;
}
</style>
