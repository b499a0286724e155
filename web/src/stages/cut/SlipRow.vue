<script setup lang="ts">
/** Showing an earlier or later part of the source, with the new first and last picture. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import type { PacedClip, Step } from '@/api/types'
import { useTrialStill } from '@/player/useTrialStill'
import { useHand } from '@/stores/hand'
import { useNotes } from '@/stores/notes'
import { endOf, startOf, useProject } from '@/stores/project'
import { frameOf, frameTicks } from '@/time'

const props = defineProps<{ clip: PacedClip }>()
const project = useProject()
const hand = useHand()
const notes = useNotes()
const STEPS = [-10, -1, 1, 10]

function slip(frames: number) {
  const by = frames * frameTicks(project.rate)
  project.edit({ kind: 'slip', clips: [props.clip.id ?? ''], by })
}

/** Its first and last picture, while it is slipped those that it would have. */
const step = computed<Step | null>(() =>
  hand.slipBy ? { kind: 'slip', clips: [props.clip.id ?? ''], by: hand.slipBy } : null,
)
const still = (frame: () => number) =>
  useTrialStill(
    () => project.source,
    frame,
    () => step.value,
    (error) => notes.problem(error),
  )
const first = still(() => frameOf(startOf(props.clip), project.rate))
const last = still(() => frameOf(endOf(props.clip), project.rate) - 1)
</script>

<template>
  <div class="slip">
    <div class="line">
      <span class="soft">{{ $t('cut.slipRow.slip') }}</span>
      <BButton
        v-for="by in STEPS"
        :key="by"
        variant="secondary"
        :title="
          $t(
            'cut.slipRow.showsAPart',
            { way: by < 0 ? $t('words.earlier') : $t('words.later') },
            Math.abs(by),
          )
        "
        :data-test="`slip${by}`"
        @click="slip(by)"
      >
        {{ by > 0 ? '+' : '−' }}{{ Math.abs(by) }}
      </BButton>
      <BButton
        variant="secondary"
        :aria-pressed="hand.slips"
        :class="{ taken: hand.slips }"
        :title="$t('cut.slipRow.whileThisIsOnDragging')"
        data-test="slip-drag"
        @click="hand.slips = !hand.slips"
      >
        {{ $t('cut.slipRow.byDrag') }}
      </BButton>
    </div>
    <div v-if="clip.kind !== 'sound'" class="ends">
      <figure>
        <img :src="first" alt="" />
        <figcaption class="tiny">{{ $t('cut.slipRow.first') }}</figcaption>
      </figure>
      <figure>
        <img :src="last" alt="" />
        <figcaption class="tiny">{{ $t('cut.slipRow.last') }}</figcaption>
      </figure>
    </div>
  </div>
</template>

<style scoped>
.slip {
  display: grid;
  gap: 6px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 5px;
}
.line .btn {
  padding: 2px 9px;
}
.taken {
  outline: 2px solid var(--accent);
}
.ends {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
figure {
  position: relative;
  margin: 0;
  height: 84px;
  border-radius: var(--fold);
  overflow: hidden;
  background: var(--neutral);
}
img {
  width: 100%;
  height: 100%;
  object-fit: contain;
}
figcaption {
  position: absolute;
  left: 6px;
  top: 4px;
  padding: 0 6px;
  border-radius: 6px 6px 2px 6px;
  background: #17141ad9;
}
</style>
