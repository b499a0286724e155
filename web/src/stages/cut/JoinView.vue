<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import IconNext from '~icons/tabler/chevron-right'
import IconBefore from '~icons/tabler/chevron-left'
import { useScreen } from '@/player/inject'
import { endOf, startOf, useProject } from '@/stores/project'
import { frameOf } from '@/time'

const project = useProject()
const { player } = useScreen()

/** Joins of the main track: the first frame after each, and what meets there. */
const joins = computed(() => {
  const main = project.tracks.find((track) => track.kind === 'main')
  const clips = main?.clips ?? []
  return clips.flatMap((clip, index) => {
    const before = clips[index - 1]
    if (!before || endOf(before) !== startOf(clip)) return []
    return [{ frame: frameOf(startOf(clip), project.rate), before, after: clip }]
  })
})
const nearest = computed(() => {
  const at = player.frame.value
  let best = joins.value[0] ?? null
  for (const join of joins.value) {
    if (best && Math.abs(join.frame - at) < Math.abs(best.frame - at)) best = join
  }
  return best
})
const place = computed(() => (nearest.value ? joins.value.indexOf(nearest.value) + 1 : 0))
const previous = computed(() => joins.value.findLast((join) => join.frame < player.frame.value))
const next = computed(() => joins.value.find((join) => join.frame > player.frame.value))

function picture(frame: number): string {
  return `/api/projects/${project.id}/revisions/${project.revision}/frames/${frame}?long_side=480`
}
</script>

<template>
  <section class="joins" aria-label="Join nearest the playhead">
    <div class="line">
      <h2>Join near the playhead</h2>
      <span v-if="joins.length" class="small quiet">{{ place }} of {{ joins.length }}</span>
    </div>
    <div v-if="!nearest" class="empty">
      <strong>No join yet</strong>
      <span
        >Where two clips of the main track meet, the last picture of the one and the first of the
        other stand here side by side.</span
      >
    </div>
    <template v-else>
      <div class="pair">
        <button class="side" title="To the last frame" @click="player.seek(nearest.frame - 1)">
          <img :src="picture(nearest.frame - 1)" alt="" />
          <span class="tag clip-text">last of {{ nearest.before.name }}</span>
        </button>
        <button class="side" title="To the first frame" @click="player.seek(nearest.frame)">
          <img :src="picture(nearest.frame)" alt="" />
          <span class="tag clip-text">first of {{ nearest.after.name }}</span>
        </button>
      </div>
      <div class="line ways">
        <BButton
          variant="secondary"
          :disabled="!previous"
          @click="previous && player.seek(previous.frame)"
        >
          <IconBefore aria-hidden="true" />Join before
        </BButton>
        <BButton variant="secondary" :disabled="!next" @click="next && player.seek(next.frame)">
          Next join<IconNext aria-hidden="true" />
        </BButton>
      </div>
    </template>
  </section>
</template>

<style scoped>
.joins {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.line {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
.ways {
  justify-content: center;
  gap: 8px;
}
.pair {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(132px, 1fr));
  gap: 8px;
}
.side {
  position: relative;
  border: 0;
  padding: 0;
  background: var(--neutral);
  border-radius: 10px 10px 2px 10px;
  overflow: hidden;
  min-height: 0;
}
.side img {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  object-fit: contain;
}
.tag {
  position: absolute;
  left: 8px;
  top: 8px;
  max-width: calc(100% - 16px);
  background: #17141ad9;
  color: var(--text);
  font-size: 12px;
  font-weight: 600;
  padding: 2px 8px;
  border-radius: 8px 8px 2px 8px;
}
</style>
