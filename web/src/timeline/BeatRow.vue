<script setup lang="ts">
/** The beats of all music in a row of their own, so that pictures are cut to them wherever it lies. */
import { computed } from 'vue'
import { useScreen } from '@/player/inject'
import { useProject } from '@/stores/project'
import { frameOf } from '@/time'
import { BEAT_ROOM, roomy, type Beat } from './beats'
import { toPx, toTick } from './scale'

const props = defineProps<{
  beats: readonly Beat[]
  headWidth: number
  zoom: number
  view: { from: number; to: number }
}>()
const project = useProject()
const { player } = useScreen()

const room = computed(() => roomy(props.beats, toTick(BEAT_ROOM, props.zoom)))
const strokes = computed(() => {
  const row = { beat: '', bar: '' }
  for (const { at, bar } of room.value) {
    const px = toPx(at, props.zoom)
    if (px < props.view.from - 20 || px > props.view.to + 20) continue
    row[bar ? 'bar' : 'beat'] += `M${px.toFixed(1)} ${bar ? 1 : 6}V14`
  }
  return row
})

/** To the beat nearest to a tap. */
function go(event: MouseEvent) {
  const from = (event.currentTarget as HTMLElement).getBoundingClientRect().left
  const tick = toTick(event.clientX - from, props.zoom)
  const away = (beat: Beat) => Math.abs(beat.at - tick)
  const near = room.value.reduce((best, one) => (away(one) < away(best) ? one : best))
  player.seek(frameOf(near.at, project.rate))
}
</script>

<template>
  <div class="beats">
    <div class="head tiny quiet" :style="{ width: `${headWidth}px` }">
      {{ $t('timeline.beatRow.beats') }}
    </div>
    <div
      class="row-of"
      role="presentation"
      :title="$t('timeline.beatRow.help')"
      data-test="beat-row"
      @click="go"
    >
      <svg aria-hidden="true">
        <path class="beat" :d="strokes.beat" />
        <path class="bar" :d="strokes.bar" />
      </svg>
    </div>
  </div>
</template>

<style scoped>
.beats {
  position: sticky;
  top: var(--ruler);
  z-index: 5;
  display: flex;
  height: var(--beats);
  background: #15111a;
}
.head {
  position: sticky;
  left: 0;
  z-index: 1;
  flex: none;
  display: flex;
  align-items: center;
  padding-left: 12px;
  background: #15111a;
}
.row-of {
  flex: 1;
  margin-left: 12px;
  cursor: pointer;
}
svg {
  display: block;
  width: 100%;
  height: 15px;
  overflow: visible;
  pointer-events: none;
}
.beat {
  stroke: #a99bb5;
}
.bar {
  stroke: #fff;
  stroke-width: 2;
}
</style>
