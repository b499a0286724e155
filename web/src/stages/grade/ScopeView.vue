<script setup lang="ts">
/** One scope, drawn from counts. */
import { computed, ref, watch } from 'vue'
import type { Measured } from '@/player/measured'
import { useKit } from '@/stores/kit'
import { histogramPaths, SCOPES, vectorImage, waveformImage, type ScopeKind } from './scopes'

const props = defineProps<{ kind: ScopeKind; measured: Measured | null }>()
const kit = useKit()
const canvas = ref<HTMLCanvasElement | null>(null)

const scope = computed(() => SCOPES.find((one) => one.id === props.kind))
const counts = computed(() => scope.value && props.measured?.scopes[scope.value.array])
const paths = computed(() =>
  props.kind === 'histogram' && counts.value ? histogramPaths(counts.value) : [],
)
const COLOURS = ['#ff5246', '#46de6e', '#5482ff']

/** Places of the targets, 0..256 from the top left. */
const targets = computed(() =>
  (kit.grade?.targets ?? []).map(({ name, cb, cr }) => ({
    name: (name[0] ?? '').toUpperCase(),
    title: name,
    x: 128 + cb * 256,
    y: 128 - cr * 256,
  })),
)
const skin = computed(() => {
  const turn = ((kit.grade?.skin_angle ?? 123) * Math.PI) / 180
  return { x: 128 + Math.cos(turn) * 118, y: 128 - Math.sin(turn) * 118 }
})

watch(
  () => [counts.value, props.kind, canvas.value] as const,
  ([found, kind, target]) => {
    if (!found || !target || kind === 'histogram') return
    const pixels = props.measured?.pixels ?? 1
    const image =
      kind === 'vectors'
        ? vectorImage(found, pixels)
        : waveformImage(found, pixels, kind === 'parade')
    target.width = image.width
    target.height = image.height
    target.getContext('2d')?.putImageData(image, 0, 0)
  },
)
</script>

<template>
  <figure class="scope" :class="kind" :aria-label="scope?.help" :data-test="`scope-${kind}`">
    <svg v-if="kind === 'histogram'" viewBox="0 0 256 100" preserveAspectRatio="none">
      <path v-for="(path, index) in paths" :key="index" :d="path" :fill="COLOURS[index]" />
    </svg>
    <template v-else>
      <canvas ref="canvas" :data-drawn="counts ? 'yes' : 'no'" />
      <svg v-if="kind === 'vectors'" class="over" viewBox="0 0 256 256">
        <circle cx="128" cy="128" r="118" />
        <path d="M128 10V246M10 128H246" />
        <line class="skin" x1="128" y1="128" :x2="skin.x" :y2="skin.y" />
        <g v-for="one in targets" :key="one.title">
          <rect :x="one.x - 6" :y="one.y - 6" width="12" height="12" />
          <text :x="one.x + 9" :y="one.y + 4">{{ one.name }}</text>
        </g>
      </svg>
      <div v-else class="lines" aria-hidden="true">
        <span v-for="level in [100, 75, 50, 25, 0]" :key="level">{{ level }}</span>
      </div>
    </template>
    <figcaption>{{ scope?.name }}</figcaption>
  </figure>
</template>

<style scoped>
.scope {
  position: relative;
  margin: 0;
  background: #0c0a0e;
  border-radius: 8px 8px 2px 8px;
  overflow: hidden;
  min-height: 0;
  min-width: 0;
}
canvas,
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
svg path[fill] {
  mix-blend-mode: screen;
}
.vectors canvas,
.vectors .over {
  inset: 4px;
  width: calc(100% - 8px);
  height: calc(100% - 8px);
  object-fit: contain;
}
.over {
  fill: none;
  stroke: #6d6873;
  stroke-width: 1;
}
.over .skin {
  stroke: #cdb8a4;
  stroke-dasharray: 5 4;
}
.over rect {
  stroke: #a097ab;
}
.over text {
  stroke: none;
  fill: #cdc4d6;
  font-size: 13px;
}
.lines {
  position: absolute;
  inset: 0;
  display: flex;
  flex-direction: column;
  justify-content: space-between;
  pointer-events: none;
}
.lines span {
  border-top: 1px solid rgb(160 151 171 / 28%);
  font-size: 10px;
  line-height: 1;
  color: #a097ab;
  padding: 1px 4px;
  height: 0;
  text-align: right;
}
.lines span:last-child {
  padding: 0;
  color: transparent;
}
figcaption {
  position: absolute;
  left: 8px;
  top: 5px;
  font-size: 12px;
  color: var(--quiet);
  pointer-events: none;
}
</style>
