<script setup lang="ts">
/** The ways in which a take, or its marked part, comes onto the timeline. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import type { Take } from '@/api/types'
import { usePhone } from '@/look/phone'
import { useScreen } from '@/player/inject'
import { useHand, type InHand } from '@/stores/hand'
import { useNotes } from '@/stores/notes'
import { startOf, useProject } from '@/stores/project'
import { partOf, placeStep, type PlaceMode } from '@/takes/placing'
import { t } from '@/texts'
import { tickOf } from '@/time'
import { useFilling } from './useFilling'

const props = defineProps<{ take: Take; disabled: boolean }>()
const project = useProject()
const notes = useNotes()
const hand = useHand()
const { player } = useScreen()
const { phone } = usePhone()
const { filled, fits, fill } = useFilling()

const MODES: { mode: PlaceMode; name: string; help: string }[] = [
  {
    mode: 'end',
    name: t('gather.placeVerbs.atEnd'),
    help: t('gather.placeVerbs.behindTheLastClip'),
  },
  {
    mode: 'push',
    name: t('gather.placeVerbs.pushIn'),
    help: t('gather.placeVerbs.atThePlayheadLaterClips'),
  },
  {
    mode: 'over',
    name: t('gather.placeVerbs.over'),
    help: t('gather.placeVerbs.atThePlayheadWhatIs'),
  },
  {
    mode: 'above',
    name: t('gather.placeVerbs.above'),
    help: t('gather.placeVerbs.atThePlayheadOnA'),
  },
]

async function place(mode: PlaceMode) {
  const step = placeStep(props.take, mode, tickOf(player.frame.value, project.rate))
  if (!step) return
  if (await hand.bring(step, placed))
    notes.told(t('gather.placeVerbs.isOnTheTimeline', { name: props.take.name }))
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
    notes.told(t('gather.placeVerbs.theClipShowsItsLength', { name: props.take.name }))
  }
}
/** What a take does with the clip in hand: it fills it, as one more angle, or takes its place. */
const withHand = computed(() => {
  const clip = hand.one?.clip
  if (!clip) return []
  const name = clip.name || t('gather.placeVerbs.clip')
  const filling = {
    test: 'add-angles',
    help: t('gather.severalBar.intoHelp'),
    name: phone.value ? t('gather.placeVerbs.angle') : t('gather.severalBar.into', { name }),
    run: () => fill([props.take]),
  }
  const replacing = {
    test: 'place-replace',
    help: t('gather.placeVerbs.itsPlaceEffectsSpeedAnd'),
    name: phone.value
      ? t('gather.placeVerbs.replace')
      : t('gather.placeVerbs.replaceNamed', { name }),
    run: replace,
  }
  if (!filled.value || !fits([props.take])) return [replacing]
  return phone.value ? [filling] : [filling, replacing]
})
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
      v-for="one in withHand"
      :key="one.test"
      class="wide"
      variant="secondary"
      :disabled="disabled"
      :title="one.help"
      :data-test="one.test"
      @click="one.run"
    >
      {{ one.name }}
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
