<script setup lang="ts">
/** Curves of brightness and channels, and of hues. */
import { computed, ref } from 'vue'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import { usePhone } from '@/look/phone'
import TrayItem from '@/tray/TrayItem.vue'
import { CURVES, type GradeCurve } from './curves'
import GradeSliders from './GradeSliders.vue'
import OneCurve from './OneCurve.vue'
import type { useGrade } from './useGrade'

defineProps<{ grade: ReturnType<typeof useGrade> }>()
const { phone } = usePhone()

const wanted = ref<GradeCurve['id']>('luma')
const curve = computed(() => CURVES.find((one) => one.id === wanted.value) ?? CURVES[0])
const choices = CURVES.map((one) => ({ ...one, test: `curve-${one.id}` }))
</script>

<template>
  <GradeSliders :grade="grade" stage="curves">
    <template v-if="phone">
      <TrayItem
        v-for="one in CURVES"
        :key="one.id"
        v-slot="{ alone }"
        :name="one.name"
        :keyed="grade.keyed(`curves/${one.id}`) !== 'none'"
      >
        <OneCurve v-if="alone" :grade="grade" :curve="one" />
      </TrayItem>
    </template>
    <div v-else class="curves">
      <ChoiceGroup
        :label="$t('grade.curvesPart.curve')"
        :choices="choices"
        :taken="wanted"
        @take="wanted = $event"
      />
      <OneCurve :grade="grade" :curve="curve" />
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
</style>
