<script setup lang="ts">
/** What a camera wrote, another shot to match, levels, CDL, grades as files. */
import { BButton } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import KeyButton from '@/controls/KeyButton.vue'
import { useScreen } from '@/player/inject'
import { useKit } from '@/stores/kit'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import TrayItem from '@/tray/TrayItem.vue'
import GradeSliders from './GradeSliders.vue'
import MatchPart from './MatchPart.vue'
import type { useGrade } from './useGrade'

const props = defineProps<{ grade: ReturnType<typeof useGrade> }>()
const kit = useKit()
const notes = useNotes()
const project = useProject()
const { player } = useScreen()
const file = ref<HTMLInputElement | null>(null)

const inZone = computed(() => Boolean(props.grade.zone.value))
const transform = computed(() => props.grade.now('input/transform', ''))

const TRIPLES = [
  { name: 'slope', rest: [1, 1, 1], low: 0, high: 4 },
  { name: 'offset', rest: [0, 0, 0], low: -1, high: 1 },
  { name: 'power', rest: [1, 1, 1], low: 0.1, high: 4 },
]
type Triple = [number, number, number]
const triple = (name: string, rest: number[]) =>
  props.grade.now<Triple>(`cdl/${name}`, rest as Triple)

function setPart(name: string, rest: number[], index: number, event: Event) {
  const typed = Number((event.target as HTMLInputElement).value.replace(',', '.'))
  if (!Number.isFinite(typed)) return
  const value = triple(name, rest).map((one, i) => (i === index ? typed : one))
  props.grade.set({ [`cdl/${name}`]: value })
}

async function readCdl(event: Event) {
  const field = event.target as HTMLInputElement
  const [one] = field.files ?? []
  field.value = ''
  if (!one) return
  try {
    const { slope, offset, power, saturation } = await kit.readCdl(one)
    await props.grade.set({
      'cdl/slope': slope,
      'cdl/offset': offset,
      'cdl/power': power,
      'cdl/saturation': saturation,
      'cdl/on': true,
    })
  } catch (error) {
    notes.problem(error)
  }
}

const fileBase = computed(() => {
  const clip = props.grade.clip.value?.id ?? ''
  return `/api/projects/${project.id}/revisions/${project.revision}/clips/${clip}`
})
const query = computed(
  () => `?${new URLSearchParams({ frame: String(player.shown.value), within: project.within })}`,
)
</script>

<template>
  <div class="more tray-group">
    <GradeSliders v-if="!inZone" :grade="grade" stage="input">
      <TrayItem :name="$t('grade.morePart.camera')">
        <select
          class="form-select form-select-sm"
          :aria-label="$t('grade.morePart.howTheCameraCodedIts')"
          data-test="coding"
          :value="transform"
          @change="
            grade.set({
              'input/transform': ($event.target as HTMLSelectElement).value,
              'input/on': true,
            })
          "
        >
          <option value="">{{ $t('grade.morePart.asForAScreenNo') }}</option>
          <option v-for="one in kit.grade?.codings ?? []" :key="one.name" :value="one.name">
            {{ one.label }}
          </option>
        </select>
      </TrayItem>
    </GradeSliders>
    <MatchPart :grade="grade" />
    <GradeSliders :grade="grade" stage="levels" />
    <GradeSliders :grade="grade" stage="cdl">
      <TrayItem
        v-for="one in TRIPLES"
        :key="one.name"
        :name="one.name.charAt(0).toUpperCase() + one.name.slice(1)"
      >
        <div class="triple">
          <span>{{ one.name.charAt(0).toUpperCase() + one.name.slice(1) }}</span>
          <input
            v-for="(value, index) in triple(one.name, one.rest)"
            :key="index"
            type="text"
            inputmode="decimal"
            class="form-control form-control-sm"
            :aria-label="`${one.name}, ${[$t('grade.morePart.red'), $t('grade.morePart.green'), $t('grade.morePart.blue')][index]}`"
            :value="Number(value.toFixed(4))"
            @change="setPart(one.name, one.rest, index, $event)"
          />
          <KeyButton
            :label="one.name"
            :keyed="grade.keyed(`cdl/${one.name}`)"
            @click="grade.toggleKey(`cdl/${one.name}`, one.rest)"
          />
        </div>
      </TrayItem>
      <TrayItem :name="$t('grade.morePart.cdlFiles')">
        <div class="line">
          <BButton size="sm" variant="secondary" @click="file?.click()">{{
            $t('grade.morePart.readACdlFile')
          }}</BButton>
          <input
            ref="file"
            type="file"
            :aria-label="$t('grade.morePart.aCdlFile')"
            accept=".cdl,.cc,.ccc"
            hidden
            @change="readCdl"
          />
          <a
            v-if="!inZone"
            class="btn btn-secondary btn-sm"
            :href="`${fileBase}/grade.cc${query}`"
            download
            >{{ $t('grade.morePart.writeCc') }}</a
          >
        </div>
      </TrayItem>
    </GradeSliders>
    <TrayItem v-if="!inZone" :name="$t('grade.morePart.wholeGrade')">
      <div class="line">
        <strong class="tiny quiet">{{ $t('grade.morePart.theWholeGrade') }}</strong>
        <a
          class="btn btn-secondary btn-sm"
          :class="{ disabled: !grade.grade.value }"
          :href="`${fileBase}/grade.cube${query}`"
          download
          :title="$t('grade.morePart.zonesWithMasksCannotBe')"
          data-test="write-cube"
          >{{ $t('grade.morePart.writeCube') }}</a
        >
        <BButton
          size="sm"
          variant="secondary"
          :disabled="!grade.grade.value"
          data-test="no-grade"
          @click="grade.send({ kind: 'replace_grade', clips: grade.ids.value })"
        >
          {{ $t('grade.morePart.takeTheGradeOff') }}
        </BButton>
      </div>
    </TrayItem>
  </div>
</template>

<style scoped>
.more {
  display: grid;
  gap: 8px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.line select {
  flex: 1;
  min-width: 120px;
}
.triple {
  display: grid;
  grid-template-columns: 84px repeat(3, minmax(0, 1fr)) 28px;
  align-items: center;
  gap: 8px;
  color: var(--soft);
  margin-bottom: 4px;
}
</style>
