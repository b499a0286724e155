<script setup lang="ts">
/** Lift, gamma and gain. */
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import ColourWheel from './ColourWheel.vue'
import GradeSliders from './GradeSliders.vue'
import type { useGrade } from './useGrade'

const props = defineProps<{ grade: ReturnType<typeof useGrade> }>()

const WHEELS = [
  { id: 'lift', name: t('grade.wheelsPart.lift'), help: t('grade.wheelsPart.darkPartsWhiteStays') },
  {
    id: 'gamma',
    name: t('grade.wheelsPart.gamma'),
    help: t('grade.wheelsPart.whatLiesBetweenBlackAnd'),
  },
  {
    id: 'gain',
    name: t('grade.wheelsPart.gain'),
    help: t('grade.wheelsPart.brightPartsBlackStays'),
  },
] as const

const path = (wheel: string, what: string) => `wheels/${wheel}/${what}`

function values(wheel: string, given: object): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(given).map(([what, value]) => [path(wheel, what), value as unknown]),
  )
}
const rest = (what: string) => (what === 'push' ? [0, 0] : 0)
const push = (wheel: string) => props.grade.now<[number, number]>(path(wheel, 'push'), [0, 0])
</script>

<template>
  <GradeSliders :grade="grade" stage="wheels">
    <div class="wheels">
      <TrayItem
        v-for="one in WHEELS"
        :key="one.id"
        :name="one.name"
        :keyed="grade.keyed(path(one.id, 'push')) !== 'none'"
      >
        <ColourWheel
          :name="one.name"
          :help="one.help"
          :push="push(one.id)"
          :level="grade.now(path(one.id, 'level'), 0)"
          :keyed="grade.keyed(path(one.id, 'push'))"
          :level-keyed="grade.keyed(path(one.id, 'level'))"
          @trying="grade.trying(values(one.id, $event))"
          @set="grade.set(values(one.id, $event))"
          @key="grade.toggleKey(path(one.id, $event), rest($event))"
        />
      </TrayItem>
    </div>
  </GradeSliders>
</template>

<style scoped>
.wheels {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(92px, 1fr));
  gap: 10px;
}
.phone .wheels {
  display: flex;
}
</style>
