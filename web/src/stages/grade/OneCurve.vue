<script setup lang="ts">
/** A curve, its key and the way back to what it was. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import CurveGraph from '@/controls/CurveGraph.vue'
import KeyButton from '@/controls/KeyButton.vue'
import type { Spot } from '@/motion/curve'
import type { GradeCurve } from './curves'
import type { useGrade } from './useGrade'

const props = defineProps<{ grade: ReturnType<typeof useGrade>; curve: GradeCurve }>()

const STRAIGHT: Spot[] = [
  [0, 0],
  [1, 1],
]
const FLAT: Spot[] = [[0, 0.5]]

const path = computed(() => `curves/${props.curve.id}`)
const rest = computed(() => (props.curve.hues ? FLAT : STRAIGHT))
const points = computed(() => props.grade.now<Spot[]>(path.value, rest.value))
const keyed = computed(() => props.grade.keyed(path.value))
</script>

<template>
  <div class="one-curve">
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
      <span class="tiny quiet">{{
        $t('grade.oneCurve.doubleTapAPointTo', { help: curve.help })
      }}</span>
      <KeyButton :label="curve.help" :keyed="keyed" @click="grade.toggleKey(path, rest)" />
      <BButton
        size="sm"
        variant="secondary"
        :disabled="JSON.stringify(points) === JSON.stringify(rest)"
        @click="grade.set({ [path]: rest })"
      >
        {{ $t('grade.oneCurve.reset') }}
      </BButton>
    </div>
  </div>
</template>

<style scoped>
.one-curve {
  display: flex;
  flex-direction: column;
  gap: 8px;
  min-height: 0;
}
.foot {
  display: flex;
  align-items: center;
  gap: 8px;
}
.foot span {
  flex: 1;
}
.phone .one-curve {
  display: grid;
  grid: minmax(0, 1fr) / minmax(0, 1fr) auto;
  height: 100%;
  flex: 1;
}
.phone .foot {
  flex-direction: column;
}
.phone .foot span {
  display: none;
}
</style>
