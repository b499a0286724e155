<script setup lang="ts">
/** Curves of brightness and channels, and of hues. */
import { BButton } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import KeyButton from '@/controls/KeyButton.vue'
import CurveGraph from '@/controls/CurveGraph.vue'
import GradeSliders from './GradeSliders.vue'
import type { Spot } from '@/motion/curve'
import type { useGrade } from './useGrade'

const props = defineProps<{ grade: ReturnType<typeof useGrade> }>()

const STRAIGHT: Spot[] = [
  [0, 0],
  [1, 1],
]
const FLAT: Spot[] = [[0, 0.5]]
const CURVES = [
  { id: 'luma', name: 'Luma', colour: '#e2d8ec', help: 'Brightness; colours stay', hues: false },
  { id: 'red', name: 'R', colour: '#ff6a5e', help: 'Red', hues: false },
  { id: 'green', name: 'G', colour: '#5fd980', help: 'Green', hues: false },
  { id: 'blue', name: 'B', colour: '#7a9dff', help: 'Blue', hues: false },
  {
    id: 'hue_to_hue',
    name: 'Hue → hue',
    colour: '#e2d8ec',
    help: 'Turns hues, by hue; the middle leaves them',
    hues: true,
  },
  {
    id: 'hue_to_saturation',
    name: 'Hue → sat',
    colour: '#e2d8ec',
    help: 'Stronger above the middle, weaker below, by hue',
    hues: true,
  },
] as const
type CurveId = (typeof CURVES)[number]['id']

const wanted = ref<CurveId>('luma')
const curve = computed(() => CURVES.find((one) => one.id === wanted.value) ?? CURVES[0])
const path = computed(() => `curves/${curve.value.id}`)
const rest = computed(() => (curve.value.hues ? FLAT : STRAIGHT))
const points = computed(() => props.grade.now<Spot[]>(path.value, rest.value))
const keyed = computed(() => props.grade.keyed(path.value))
const choices = CURVES.map((one) => ({
  id: one.id,
  name: one.name,
  help: one.help,
  test: `curve-${one.id}`,
}))
</script>

<template>
  <GradeSliders :grade="grade" stage="curves">
    <div class="curves">
      <ChoiceGroup label="Curve" :choices="choices" :taken="wanted" @take="wanted = $event" />
      <CurveGraph
        :key="curve.id"
        :points="points"
        :hues="curve.hues"
        :colour="curve.colour"
        :label="curve.help"
        @trying="grade.trying({ [path]: $event })"
        @set="grade.set({ [path]: $event })"
      />
      <div class="foot">
        <span class="tiny quiet">{{ curve.help }}. Double-tap a point to take it out.</span>
        <KeyButton :label="curve.help" :keyed="keyed" @click="grade.toggleKey(path, rest)" />
        <BButton
          size="sm"
          variant="secondary"
          :disabled="JSON.stringify(points) === JSON.stringify(rest)"
          @click="grade.set({ [path]: rest })"
        >
          Reset
        </BButton>
      </div>
    </div>
  </GradeSliders>
</template>

<style scoped>
.curves {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.curves :deep(.choices) {
  flex-wrap: nowrap;
  align-self: stretch;
  overflow-x: auto;
  scrollbar-width: none;
}
.curves :deep(.choices button) {
  flex: 1;
  padding: 4px 8px;
  white-space: nowrap;
}
.foot {
  display: flex;
  align-items: center;
  gap: 8px;
}
.foot span {
  flex: 1;
}
</style>
