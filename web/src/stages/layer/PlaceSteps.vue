<script setup lang="ts">
/** Steps from one place of a clip to the next, such as where something is unsure; on request they are marked. */
import { BButton } from 'bootstrap-vue-next'
import { useScreen } from '@/player/inject'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import { tickOf } from '@/time'

const props = defineProps<{
  clip: string
  /** Frames of the timeline, in order. */
  places: readonly number[]
  before: string
  next: string
  test: string
  /** What they are called as markers on the clip; without it they cannot be marked. */
  name?: string
}>()
const project = useProject()
const { player } = useScreen()

const STEPS = [
  { id: 'before', way: -1, name: t('layer.placeSteps.before') },
  { id: 'next', way: 1, name: t('layer.placeSteps.next') },
] as const

function step(way: 1 | -1) {
  const at = player.frame.value
  const to =
    way > 0
      ? props.places.find((frame) => frame > at)
      : props.places.findLast((frame) => frame < at)
  if (to !== undefined) player.seek(to)
}

const mark = (name: string) =>
  project.edit({
    kind: 'mark_places',
    clip: props.clip,
    at: props.places.map((frame) => tickOf(frame, project.rate)),
    name,
    tag: 'amber',
  })
</script>

<template>
  <BButton
    v-for="one in STEPS"
    :key="one.id"
    size="sm"
    variant="secondary"
    :data-test="`${test}-${one.id}`"
    :aria-label="props[one.id]"
    @click="step(one.way)"
  >
    {{ one.name }}
  </BButton>
  <BButton
    v-if="name"
    size="sm"
    variant="secondary"
    :data-test="`${test}-mark`"
    :title="$t('layer.placeSteps.markHelp')"
    @click="mark(name)"
  >
    {{ $t('layer.placeSteps.mark') }}
  </BButton>
</template>
