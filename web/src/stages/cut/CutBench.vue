<script setup lang="ts">
import { computed, ref } from 'vue'
import { isPaced, isPictured, isSounding } from '@/api/types'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import { useHand } from '@/stores/hand'
import { useProject } from '@/stores/project'
import JoinView from './JoinView.vue'
import PacePanel from './PacePanel.vue'
import PlacePanel from './PlacePanel.vue'
import ScreenPanel from './ScreenPanel.vue'
import SequencePanel from './SequencePanel.vue'
import SoundPanel from './SoundPanel.vue'

type Part = 'pictures' | 'pace' | 'place' | 'sound' | 'screen'

const hand = useHand()
const project = useProject()
const wanted = ref<Part>('pace')

const clip = computed(() => hand.one?.clip ?? null)
const locked = computed(() => hand.one?.track.locked ?? false)
const parts = computed(() => {
  const one = clip.value
  const found: { id: Part; name: string; test: string }[] = []
  if (one?.kind === 'sequence') {
    found.push({ id: 'pictures', name: 'Pictures', test: 'part-pictures' })
  }
  if (one && isPaced(one)) found.push({ id: 'pace', name: 'Pace', test: 'part-pace' })
  if (one && isPictured(one)) found.push({ id: 'place', name: 'Place', test: 'part-place' })
  if (one && isSounding(one)) found.push({ id: 'sound', name: 'Sound', test: 'part-sound' })
  if (hand.found.some((held) => isPictured(held.clip))) {
    found.push({ id: 'screen', name: 'Split screen', test: 'part-screen' })
  }
  return found
})
/** The part that was last chosen, where the clip in hand has it. */
const part = computed(() =>
  parts.value.some((one) => one.id === wanted.value) ? wanted.value : (parts.value[0]?.id ?? null),
)
</script>

<template>
  <div class="cut">
    <JoinView class="panel join" />
    <!-- Drawn anew when a step was refused: fields and switches show again what is. -->
    <section v-if="part" :key="project.refusals" class="panel values" aria-label="What is in hand">
      <ChoiceGroup label="Part" :choices="parts" :taken="part" @take="wanted = $event" />
      <PacePanel
        v-if="part === 'pace' && clip && isPaced(clip)"
        :key="clip.id"
        :clip="clip"
        :locked="locked"
      />
      <SequencePanel
        v-else-if="part === 'pictures' && clip?.kind === 'sequence'"
        :clip="clip"
        :locked="locked"
      />
      <PlacePanel
        v-else-if="part === 'place' && clip && isPictured(clip)"
        :clip="clip"
        :locked="locked"
      />
      <SoundPanel
        v-else-if="part === 'sound' && clip && isSounding(clip)"
        :clip="clip"
        :locked="locked"
      />
      <ScreenPanel v-else />
    </section>
    <section v-else class="panel empty">
      <strong>Nothing in hand</strong>
      <span>
        Tap a clip on the timeline. Its pace, place and sound are set here; on the picture you move
        it with your fingers.
      </span>
    </section>
  </div>
</template>

<style scoped>
.cut {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.15fr);
  gap: 12px;
  padding: 12px 14px;
  min-height: 0;
}
.values {
  display: flex;
  flex-direction: column;
  gap: 8px;
  overflow-y: auto;
  scrollbar-width: thin;
}
.values :deep(.field) {
  min-height: 34px;
}
@media (max-width: 759px) {
  .cut {
    grid-template-columns: 1fr;
    grid-auto-rows: max-content;
    overflow-y: auto;
    padding-top: 20px;
  }
  .join {
    order: 2;
    min-height: 260px;
  }
  .values {
    overflow: visible;
  }
}
</style>
