<script setup lang="ts">
/** Loudness over the film, the loudness that is aimed at, and the playhead. Tapped, it goes there. */
import { computed } from 'vue'
import { useScreen } from '@/player/inject'
import { useProject } from '@/stores/project'

const props = defineProps<{ values: readonly number[]; target: number | null }>()
const project = useProject()
const { player } = useScreen()

const W = 320
const H = 100
const TOP = 0
const BOTTOM = -48
/** Values a second. */
const RATE = 10
const MOST = 640

const y = (lufs: number) =>
  ((TOP - Math.max(BOTTOM, Math.min(TOP, lufs))) / (TOP - BOTTOM)) * (H - 4) + 2
const length = computed(() => Math.max(1, project.frames))
const fps = computed(() => project.rate.num / project.rate.den)

/** The loudest of what falls on a point, so that a long film shows its peaks. */
const line = computed(() => {
  const { values } = props
  const each = Math.max(1, Math.ceil(values.length / MOST))
  const points: string[] = []
  for (let at = 0; at < values.length; at += each) {
    const most = Math.max(...values.slice(at, at + each))
    const x = (((at + each) / RATE) * fps.value) / length.value
    points.push(`${(Math.min(1, x) * W).toFixed(1)},${y(most).toFixed(1)}`)
  }
  return points.join(' ')
})
const head = computed(() => (player.shown.value / length.value) * W)

function go(event: PointerEvent) {
  const box = (event.currentTarget as Element).getBoundingClientRect()
  player.seek(((event.clientX - box.left) / box.width) * project.frames)
}
</script>

<template>
  <svg
    class="graph"
    :viewBox="`0 0 ${W} ${H}`"
    preserveAspectRatio="none"
    role="img"
    :aria-label="$t('mix.loudness.overTime')"
    data-test="loudness-line"
    @pointerdown="go"
  >
    <path class="grid" :d="[-12, -24, -36].map((one) => `M0 ${y(one)}H${W}`).join('')" />
    <path v-if="target !== null" class="target" :d="`M0 ${y(target)}H${W}`" />
    <polyline :points="line" />
    <path class="head" :d="`M${head} 0V${H}`" />
  </svg>
</template>

<style scoped>
.graph {
  display: block;
  width: 100%;
  height: 100px;
  border-radius: var(--fold);
  background: #100d13;
  cursor: crosshair;
}
.graph > * {
  fill: none;
  vector-effect: non-scaling-stroke;
}
.grid {
  stroke: #ffffff14;
}
.target {
  stroke: #8fd3c6;
  stroke-dasharray: 5 4;
}
polyline {
  stroke: var(--text);
  stroke-width: 1.6;
}
.head {
  stroke: var(--accent);
}
</style>
