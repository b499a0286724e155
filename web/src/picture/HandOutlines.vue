<script setup lang="ts">
/** Thin outlines of several clips in hand, or of all cells of a split screen that one is part of. */
import { computed } from 'vue'
import { isPictured, type PicturedClip } from '@/api/types'
import { useScreen } from '@/player/inject'
import { useHand } from '@/stores/hand'
import { useProject } from '@/stores/project'
import { cellCorners } from './cells'
import { useShown } from './useShown'

const props = defineProps<{ scale: number }>()
const hand = useHand()
const project = useProject()
const { player } = useScreen()

const { canvas, isSeen, cornersAt } = useShown(player)

const outlined = computed<PicturedClip[]>(() => {
  const screen = hand.one && isPictured(hand.one.clip) ? hand.one.clip.cell?.screen : null
  const clips = screen
    ? project.tracks.flatMap((track) => track.clips)
    : hand.found.length > 1
      ? hand.found.map((held) => held.clip)
      : []
  return clips
    .filter(isPictured)
    .filter((one) => !screen || one.cell?.screen === screen)
    .filter(isSeen)
})

const cornersOn = (one: PicturedClip) =>
  one.cell ? cellCorners(one.cell, canvas.value) : cornersAt(one)

const polygons = computed(() =>
  outlined.value.map((one) => ({
    id: one.id ?? '',
    taken: hand.ids.includes(one.id ?? ''),
    points: cornersOn(one)
      .map(({ x, y }) => `${(x * props.scale).toFixed(1)},${(y * props.scale).toFixed(1)}`)
      .join(' '),
  })),
)
</script>

<template>
  <g data-test="hand-outlines">
    <g v-for="one in polygons" :key="one.id">
      <polygon class="under" :points="one.points" />
      <polygon class="outline" :class="{ taken: one.taken }" :points="one.points" />
    </g>
  </g>
</template>

<style scoped>
polygon {
  fill: none;
  pointer-events: none;
}
.under {
  stroke: #161616;
  stroke-width: 3;
  opacity: 0.5;
}
.outline {
  stroke: #fff;
  stroke-width: 1.5;
  stroke-dasharray: 6 4;
}
.outline.taken {
  stroke: var(--accent);
  stroke-dasharray: none;
}
</style>
