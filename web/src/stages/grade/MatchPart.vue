<script setup lang="ts">
/** This shot led to the colours of another, measured over both or at frames that are chosen. */
import { BButton } from 'bootstrap-vue-next'
import { computed, ref, watch } from 'vue'
import { client, need } from '@/api/client'
import { isPictured, type Clip } from '@/api/types'
import { useScreen } from '@/player/inject'
import { useNotes } from '@/stores/notes'
import { endOf, startOf, useProject } from '@/stores/project'
import { KIND_NAMES } from '@/api/kinds'
import { t } from '@/texts'
import { clockOf, frameOf } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'
import GradeSliders from './GradeSliders.vue'
import { spread } from './spread'
import type { useGrade } from './useGrade'

const props = defineProps<{ grade: ReturnType<typeof useGrade> }>()
const project = useProject()
const notes = useNotes()
const { player } = useScreen()

/** Frames of a shot that are measured where no one is chosen. */
const SEVERAL = 5
const matching = ref(false)
const over = ref<'shots' | 'frames'>('shots')
const other = ref('')
const otherFrame = ref(0)

/** Other shots of this timeline, to match this one to. */
const others = computed(() =>
  project.tracks.flatMap((track) =>
    track.clips.filter((one) => isPictured(one) && !props.grade.ids.value.includes(one.id ?? '')),
  ),
)
const target = computed(() => others.value.find((one) => one.id === other.value))
const within = (clip: Clip) =>
  [frameOf(startOf(clip), project.rate), frameOf(endOf(clip), project.rate) - 1] as const

watch(target, (clip) => {
  if (!clip) return
  const [first, last] = within(clip)
  otherFrame.value = Math.round((first + last) / 2)
})

function measured(clip: Clip, chosen: number): number[] {
  const [first, last] = within(clip)
  if (over.value === 'shots') return spread(first, last, SEVERAL)
  return [Math.min(Math.max(chosen, first), last)]
}

async function match() {
  const own = props.grade.clip.value
  if (!target.value || !own) return
  matching.value = true
  try {
    const found = await need(
      client.POST('/api/projects/{id}/revisions/{revision}/match', {
        params: {
          path: { id: project.id, revision: project.revision },
          query: { within: project.within },
        },
        body: {
          clip: own.id ?? '',
          frames: measured(own, player.shown.value),
          other: target.value.id ?? '',
          other_frames: measured(target.value, otherFrame.value),
        },
      }),
    )
    await props.grade.set({ match: found })
  } catch (error) {
    notes.problem(error)
  } finally {
    matching.value = false
  }
}

const followed = computed(() => {
  const found = props.grade.now<{ name?: string } | null>('match', null)
  return JSON.stringify(props.grade.prop('match/own_mean') ?? [0, 0, 0]) === '[0,0,0]'
    ? ''
    : found?.name || t('grade.matchPart.anotherShot')
})
</script>

<template>
  <GradeSliders :grade="grade" stage="match">
    <TrayItem :name="$t('grade.matchPart.match')">
      <div class="line">
        <select
          v-model="other"
          class="form-select form-select-sm"
          :aria-label="$t('grade.matchPart.whichShot')"
        >
          <option value="" disabled>{{ $t('grade.matchPart.whichShot') }}</option>
          <option v-for="one in others" :key="one.id" :value="one.id">
            {{ one.name || KIND_NAMES[one.kind] }}
          </option>
        </select>
        <select
          v-model="over"
          class="form-select form-select-sm"
          :aria-label="$t('grade.matchPart.whatIsMeasured')"
          data-test="match-over"
        >
          <option value="shots">{{ $t('grade.matchPart.overBothShots') }}</option>
          <option value="frames">{{ $t('grade.matchPart.oneFrameOfEach') }}</option>
        </select>
      </div>
      <label v-if="over === 'frames' && target" class="frame">
        <span class="tiny quiet">
          {{
            $t('grade.matchPart.thisShotAtThePlayhead', { time: clockOf(otherFrame, project.rate) })
          }}
        </span>
        <input
          v-model.number="otherFrame"
          type="range"
          class="form-range"
          :min="within(target)[0]"
          :max="within(target)[1]"
          data-test="match-frame"
        />
      </label>
      <div class="line">
        <BButton
          size="sm"
          variant="secondary"
          :disabled="matching || !target"
          data-test="match"
          @click="match"
        >
          {{ matching ? $t('grade.matchPart.measuring') : $t('grade.matchPart.matchToIt') }}
        </BButton>
        <span v-if="followed" class="tiny quiet">{{
          $t('grade.matchPart.follows', { followed })
        }}</span>
      </div>
    </TrayItem>
  </GradeSliders>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.line + .line,
.frame + .line {
  margin-top: 8px;
}
.line select {
  flex: 1;
  min-width: 120px;
}
.frame {
  display: block;
  margin-top: 8px;
}
</style>
