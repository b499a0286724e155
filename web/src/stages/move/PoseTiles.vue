<script setup lang="ts">
/** The poses of a mouth as pictures: tapped, or held, while the film plays. */
import { ref, watch } from 'vue'
import { digitOf } from '@/motion/angles'
import { poseTint } from '@/look/poses'

const props = defineProps<{
  poses: readonly string[]
  /** All of them beside each other. */
  source: string
  live: string
  titles: Record<string, string>
}>()
const emit = defineEmits<{ press: [pose: string]; release: [] }>()
/** What is shown stays until what comes is there. */
const there = ref('')
watch(
  () => props.source,
  (source) => {
    const image = new Image()
    image.onload = () => (there.value = source)
    image.src = source
  },
  { immediate: true },
)

function down(event: PointerEvent, pose: string) {
  if (event.button) return
  // Let go anywhere, it is let go.
  const tile = event.currentTarget as HTMLElement
  tile.setPointerCapture(event.pointerId)
  emit('press', pose)
}
/** By the keyboard there is no press: it is a tap. */
function clicked(event: MouseEvent, pose: string) {
  if (event.detail) return
  emit('press', pose)
  emit('release')
}
</script>

<template>
  <div class="tiles" role="group" :aria-label="$t('move.poseTiles.poses')">
    <button
      v-for="(pose, index) in poses"
      :key="pose"
      type="button"
      :aria-pressed="pose === live"
      :title="titles[pose]"
      :data-test="`pose-${pose}`"
      :style="{ '--tint': poseTint(poses, pose) }"
      @pointerdown="down($event, pose)"
      @pointerup="$emit('release')"
      @pointercancel="$emit('release')"
      @click="clicked($event, pose)"
    >
      <span
        class="picture"
        :style="{
          backgroundImage: there ? `url('${there}')` : 'none',
          backgroundSize: `${poses.length * 100}% 100%`,
          backgroundPosition: `${poses.length > 1 ? (index * 100) / (poses.length - 1) : 0}% 0`,
        }"
      />
      <span class="name"
        ><kbd>{{ digitOf(index) }}</kbd> {{ pose }}</span
      >
    </button>
  </div>
</template>

<style scoped>
.tiles {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(64px, 96px);
  gap: 6px;
  overflow-x: auto;
  scrollbar-width: thin;
}
button {
  padding: 0 0 2px;
  border: 0;
  border-bottom: 3px solid var(--tint);
  border-radius: 8px 8px 2px 8px;
  background: var(--rail);
  color: var(--soft);
  text-align: center;
  overflow: hidden;
  touch-action: pan-x;
  -webkit-user-select: none;
  user-select: none;
}
button[aria-pressed='true'] {
  outline: 2px solid var(--accent);
  outline-offset: -2px;
  color: var(--text);
}
.picture {
  display: block;
  aspect-ratio: 3 / 2;
  background-repeat: no-repeat;
  background-color: #2b2730;
}
.name {
  display: block;
  font-size: 0.78rem;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
kbd {
  padding: 0 3px;
  background: none;
  color: inherit;
  font-size: 0.72rem;
}
/* On a phone voice, poses and tiles stand in one tray. */
.phone .tiles {
  flex: none;
  grid-auto-columns: 58px;
  gap: 4px;
  scrollbar-width: none;
}
.phone button {
  height: 54px;
}
.phone .picture {
  height: 34px;
  aspect-ratio: auto;
  background-size: auto;
}
.phone .name {
  font-size: 0.7rem;
  line-height: 1.2;
}
</style>
