<script setup lang="ts">
/** Two pictures beside each other, as those before and after a join; each leads to its frame. */
import { useScreen } from '@/player/inject'
import { useProject } from '@/stores/project'

export interface Side {
  /** The frame it leads to, and the one that is shown: beyond a transition. */
  frame: number
  shown: number
  tag: string
  title: string
  /** What of the project it shows, where that is not what is looked at. */
  look?: Record<string, string>
}

defineProps<{ sides: readonly Side[] }>()
const project = useProject()
const { player } = useScreen()

function picture({ shown, look }: Side): string {
  const query = new URLSearchParams({ ...project.look, ...look, long_side: '480' })
  return `${project.source.base}/frames/${shown}?${query}`
}
</script>

<template>
  <div class="pair">
    <button
      v-for="(side, place) in sides"
      :key="place"
      type="button"
      class="side"
      :title="side.title"
      @click="player.seek(side.frame)"
    >
      <img :src="picture(side)" alt="" />
      <span class="tag clip-text">{{ side.tag }}</span>
    </button>
  </div>
</template>

<style scoped>
.pair {
  flex: 1 0 150px;
  min-height: 130px;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
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
  left: 6px;
  top: 6px;
  max-width: calc(100% - 12px);
  background: #17141ad9;
  color: var(--text);
  font-size: 12px;
  font-weight: 600;
  padding: 2px 8px;
  border-radius: 8px 8px 2px 8px;
}
</style>
