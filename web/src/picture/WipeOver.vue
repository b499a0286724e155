<script setup lang="ts">
/** Another picture over the left part of the picture, up to a bar that is dragged. */
import { ref } from 'vue'
import { useGrip } from '@/controls/useGrip'

defineProps<{
  /** Address of the other picture; empty until it is there. */
  src: string
  /** What is seen left of the bar, and right of it. */
  left: string
  right: string
}>()
/** Where the bar stands, 0..1 of the width. */
const share = defineModel<number>({ required: true })
const field = ref<HTMLElement | null>(null)
const within = (at: number) => Math.min(0.98, Math.max(0.02, at))

const wiper = useGrip({
  slop: 0,
  move({ x }) {
    const box = field.value?.getBoundingClientRect()
    if (box) share.value = within((x - box.left) / box.width)
  },
  drop: () => {},
})

function byKey(event: KeyboardEvent) {
  const by = { ArrowLeft: -0.02, ArrowRight: 0.02 }[event.key]
  if (!by) return
  event.preventDefault()
  event.stopPropagation()
  share.value = within(share.value + by)
}
</script>

<template>
  <div ref="field" class="over">
    <img
      v-if="src"
      class="before"
      :src="src"
      :alt="$t('picture.wipeOver.thePicture', { left })"
      :style="{ clipPath: `inset(0 ${(1 - share) * 100}% 0 0)` }"
    />
    <button
      class="wipe"
      :style="{ left: `${share * 100}%` }"
      :aria-label="$t('picture.wipeOver.whereEndsAndBeginsArrow', { left, right })"
      data-test="wipe-bar"
      @pointerdown="wiper.down($event)"
      @keydown="byKey"
    >
      <span class="word left">{{ left }}</span>
      <span class="word right">{{ right }}</span>
    </button>
  </div>
</template>

<style scoped>
.over,
.before {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
.wipe {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 44px;
  margin-left: -22px;
  border: 0;
  padding: 0;
  background: linear-gradient(#fff 0 0) center / 2px 100% no-repeat;
  cursor: ew-resize;
  touch-action: none;
  pointer-events: auto;
}
.word {
  position: absolute;
  bottom: 8px;
  font-size: 12px;
  color: #fff;
  background: rgb(22 22 22 / 70%);
  padding: 0 6px;
  border-radius: 6px 6px 2px 6px;
  white-space: nowrap;
  max-width: 40vw;
  overflow: hidden;
  text-overflow: ellipsis;
  pointer-events: none;
}
.left {
  right: 28px;
}
.right {
  left: 28px;
}
</style>
