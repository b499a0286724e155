<script setup lang="ts">
/** The ways in which a take, or its marked part, comes onto the timeline. */
import { BButton } from 'bootstrap-vue-next'
import type { Take } from '@/api/types'
import { usePhone } from '@/look/phone'
import { useScreen } from '@/player/inject'
import { useHand, type InHand } from '@/stores/hand'
import { useNotes } from '@/stores/notes'
import { startOf, useProject } from '@/stores/project'
import { partOf, placeStep, type PlaceMode } from '@/takes/placing'
import { tickOf } from '@/time'

const props = defineProps<{ take: Take; disabled: boolean }>()
const project = useProject()
const notes = useNotes()
const hand = useHand()
const { player } = useScreen()
const { phone } = usePhone()

const MODES: { mode: PlaceMode; name: string; help: string }[] = [
  { mode: 'end', name: 'At end', help: 'Behind the last clip' },
  { mode: 'push', name: 'Push in', help: 'At the playhead; later clips move' },
  { mode: 'over', name: 'Over', help: 'At the playhead; what is there is replaced' },
  { mode: 'above', name: 'Above', help: 'At the playhead, on a track above' },
]

async function place(mode: PlaceMode) {
  const step = placeStep(props.take, mode, tickOf(player.frame.value, project.rate))
  if (!step) return
  if (await hand.bring(step, placed)) notes.told(`“${props.take.name}” is on the timeline.`)
}

/** What was placed; a clip that it was pushed into has made a second one, behind it. */
function placed(made: InHand[]): InHand[] {
  const mine = made.filter(({ clip }) => clip.name === props.take.name)
  return mine.sort((a, b) => startOf(a.clip) - startOf(b.clip)).slice(0, 1)
}

async function replace() {
  const part = partOf(props.take)
  const clip = hand.one?.clip.id
  if (!part || !clip) return
  if (await project.edit({ kind: 'replace', clip, take: part })) {
    notes.told(`The clip shows “${props.take.name}”. Its length and settings stayed.`)
  }
}
</script>

<template>
  <div class="verbs">
    <BButton
      v-for="(one, index) in MODES"
      :key="one.mode"
      :variant="index === 0 ? 'primary' : 'secondary'"
      :disabled="disabled"
      :title="one.help"
      :data-test="`place-${one.mode}`"
      @click="place(one.mode)"
    >
      {{ one.name }}
    </BButton>
    <BButton
      v-if="hand.one"
      class="wide"
      variant="secondary"
      :disabled="disabled"
      title="Its place, effects, speed and length stay; a shorter take makes it shorter"
      data-test="place-replace"
      @click="replace"
    >
      {{ phone ? 'Replace' : `Replace “${hand.one.clip.name || 'clip'}”` }}
    </BButton>
  </div>
</template>

<style scoped>
.verbs {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 4px;
}
.verbs .btn {
  padding: 2px;
  font-size: 13px;
}
.wide {
  grid-column: 1 / -1;
}
.phone .verbs {
  grid: auto / none;
  grid-auto-flow: column;
  grid-auto-columns: 1fr;
}
.phone .wide {
  grid-column: auto;
}
.phone .verbs .btn {
  min-height: 48px;
}
</style>
