<script setup lang="ts">
/** Grade: scopes on one side, adjustments on the other. */
import { onBeforeUnmount, ref, watch } from 'vue'
import IconBack from '~icons/tabler/x'
import IconKeyNext from '~icons/tabler/chevron-right'
import IconKeyBefore from '~icons/tabler/chevron-left'
import BenchPair from '@/controls/BenchPair.vue'
import { useGrading } from '@/stores/grading'
import { useKit } from '@/stores/kit'
import { useNotes } from '@/stores/notes'
import { t } from '@/texts'
import BalancePart from './BalancePart.vue'
import CurvesPart from './CurvesPart.vue'
import GradeTools from './GradeTools.vue'
import LooksPart from './LooksPart.vue'
import MorePart from './MorePart.vue'
import ScopesPanel from './ScopesPanel.vue'
import { useGrade } from './useGrade'
import WheelsPart from './WheelsPart.vue'
import ZonesPart from './ZonesPart.vue'

const PARTS = [
  { id: 'balance', name: t('grade.gradeBench.balance'), test: 'grade-balance' },
  { id: 'wheels', name: t('grade.gradeBench.wheels'), test: 'grade-wheels' },
  { id: 'curves', name: t('grade.gradeBench.curves'), test: 'grade-curves' },
  { id: 'looks', name: t('grade.gradeBench.looks'), test: 'grade-looks' },
  { id: 'zones', name: t('grade.gradeBench.zones'), test: 'grade-zones' },
  { id: 'more', name: t('words.more'), test: 'grade-more' },
] as const
type Part = (typeof PARTS)[number]['id']

const part = ref<Part>('balance')
const kit = useKit()
const notes = useNotes()
const grading = useGrading()
const grade = useGrade()

kit.open().catch((error: unknown) => notes.problem(error))
onBeforeUnmount(() => grading.leave())
watch([() => grade.clip.value?.id, () => grade.zones.value.length], () => {
  if (grading.zone && !grade.zone.value) grading.whole()
})
// A matte is looked at while the zone is set up, not while it is graded.
watch(part, (now) => {
  if (now !== 'zones') grading.matte = false
})
</script>

<template>
  <BenchPair
    :label="$t('grade.gradeBench.gradeOfWhatIsIn')"
    :left="$t('grade.gradeBench.scopes')"
    :parts="PARTS"
    :part="part"
    :filled="Boolean(grade.clip.value)"
    @take="part = $event"
  >
    <template #left><ScopesPanel /></template>
    <template #tools>
      <button
        v-if="grade.zone.value"
        class="chip"
        :title="$t('grade.gradeBench.backToTheWholePicture')"
        data-test="whole-picture"
        @click="grading.whole()"
      >
        <span class="clip-text">{{ grade.zone.value.name || $t('grade.gradeBench.zone') }}</span>
        <IconBack aria-hidden="true" />
      </button>
      <span class="grow" />
      <template v-if="grade.hasKeys.value">
        <button
          class="btn btn-bare"
          :aria-label="$t('words.toTheKeyBefore')"
          @click="grade.jump(-1)"
        >
          <IconKeyBefore aria-hidden="true" />
        </button>
        <button class="btn btn-bare" :aria-label="$t('words.toTheNextKey')" @click="grade.jump(1)">
          <IconKeyNext aria-hidden="true" />
        </button>
      </template>
      <GradeTools />
    </template>
    <BalancePart v-if="part === 'balance'" :grade="grade" />
    <WheelsPart v-else-if="part === 'wheels'" :grade="grade" />
    <CurvesPart v-else-if="part === 'curves'" :grade="grade" />
    <LooksPart v-else-if="part === 'looks'" :grade="grade" />
    <ZonesPart v-else-if="part === 'zones'" :grade="grade" @adjust="part = 'balance'" />
    <MorePart v-else :grade="grade" />
    <template #empty>
      <strong>{{ $t('grade.gradeBench.nothingToGradeInHand') }}</strong>
      <span>
        {{ $t('grade.gradeBench.tapAClipOnThe') }}
      </span>
    </template>
  </BenchPair>
</template>

<style scoped>
.chip {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  border: 0;
  border-radius: var(--fold);
  background: #4a2a2c;
  color: var(--text);
  font-size: 13px;
  font-weight: 600;
  padding: 4px 10px;
  min-height: calc(var(--touch) - 6px);
  min-width: 0;
}
.chip svg {
  width: 15px;
  height: 15px;
}
</style>
