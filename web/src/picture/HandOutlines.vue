<script setup lang="ts">
/** Thin outlines of several clips in hand, or of all cells of a split screen that one is part of. */
import { computed } from 'vue'
import { faceMedia, isPictured, type PicturedClip } from '@/api/types'
import { useScreen } from '@/player/inject'
import { useHand } from '@/stores/hand'
import { useLayering } from '@/stores/layering'
import { useLibrary } from '@/stores/library'
import { endOf, startOf, useProject } from '@/stores/project'
import { tickOf } from '@/time'
import { cellCorners } from './cells'
import { cornersOf, mapped, pictureSize, placedOf, STILL, type Point } from './placing'

const props = defineProps<{ scale: number }>()
const hand = useHand()
const project = useProject()
const library = useLibrary()
const layering = useLayering()
const { player } = useScreen()

const canvas = computed(() => project.document?.canvas ?? { width: 1080, height: 1920 })
const at = computed(() => tickOf(player.shown.value, project.rate))

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
    .filter((one) => startOf(one) <= at.value && at.value < endOf(one))
})

function cornersOn(one: PicturedClip): Point[] {
  if (one.cell) return cellCorners(one.cell, canvas.value)
  const extent = layering.extents[one.id ?? '']
  const take = library.byMedia.get(faceMedia(one))
  const size = pictureSize(one, take, canvas.value, canvas.value, extent)
  const map = layering.moved[one.id ?? ''] ?? STILL
  const placed = placedOf(one, at.value - startOf(one))
  return size ? cornersOf(placed, size, canvas.value).map((spot) => mapped(map, spot)) : []
}

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
