<script setup lang="ts">
/** A push towards a colour: drag anywhere on the wheel, the spot follows at half the pace. */
import { computed, ref, watch } from 'vue'
import { arrowWay } from '@/controls/arrows'
import KeyButton, { type Keyed } from '@/controls/KeyButton.vue'
import ValueField from '@/controls/ValueField.vue'
import { hueColour } from './scopes'

type Push = [number, number]

const props = defineProps<{
  name: string
  help: string
  push: Push
  level: number
  keyed: Keyed
  levelKeyed: Keyed
}>()
const emit = defineEmits<{
  trying: [values: { push?: Push; level?: number }]
  set: [values: { push?: Push; level?: number }]
  key: [which: 'push' | 'level']
}>()

const disc = ref<HTMLElement | null>(null)
const draft = ref<Push | null>(null)
let from: { x: number; y: number; push: Push } | null = null
watch(
  () => props.push,
  () => {
    if (!from) draft.value = null
  },
)
const shown = computed(() => draft.value ?? props.push)
const spot = computed(() => ({
  left: `${50 + shown.value[0] * 50}%`,
  top: `${50 - shown.value[1] * 50}%`,
}))
const told = computed(() => {
  const [x, y] = shown.value
  const strong = Math.round(Math.hypot(x, y) * 100)
  const angle = Math.round(((Math.atan2(y, x) * 180) / Math.PI + 360) % 360)
  return strong ? `${strong} % · ${angle}°` : 'neutral'
})
const RING = `conic-gradient(from 90deg, ${Array.from({ length: 25 }, (_, i) => hueColour(360 - i * 15)).join(', ')})`

function down(event: PointerEvent) {
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  from = { x: event.clientX, y: event.clientY, push: [...props.push] }
}

function move(event: PointerEvent) {
  const box = disc.value?.getBoundingClientRect()
  if (!from || !box) return
  draft.value = within([
    from.push[0] + (event.clientX - from.x) / box.width,
    from.push[1] - (event.clientY - from.y) / box.height,
  ])
  emit('trying', { push: draft.value })
}

function up() {
  if (from && draft.value) emit('set', { push: draft.value })
  from = null
}

function within([x, y]: Push): Push {
  const long = Math.max(1, Math.hypot(x, y))
  return [Math.round((x / long) * 1000) / 1000, Math.round((y / long) * 1000) / 1000]
}

function nudge(event: KeyboardEvent) {
  const by = arrowWay(event)
  if (!by) return
  event.preventDefault()
  event.stopPropagation()
  const pace = event.shiftKey ? 0.05 : 0.01
  const [x, y] = shown.value
  draft.value = within([x + by[0] * pace, y + by[1] * pace])
  emit('trying', { push: draft.value })
}

/** What the arrow keys did is kept when they are let go. */
function settle() {
  if (!from && draft.value) emit('set', { push: draft.value })
}
</script>

<template>
  <div class="wheel" :data-test="`wheel-${name}`">
    <div class="head">
      <strong>{{ name }}</strong>
      <KeyButton :label="name" :keyed="keyed" @click="emit('key', 'push')" />
    </div>
    <div
      ref="disc"
      class="disc"
      role="slider"
      tabindex="0"
      :aria-label="`${name}: ${help}`"
      :aria-valuetext="told"
      :title="`${help}. Double-tap: back to neutral`"
      :style="{ '--ring': RING }"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="up"
      @dblclick="emit('set', { push: [0, 0] })"
      @keydown="nudge"
      @keyup="settle"
    >
      <span class="spot" :style="spot" />
    </div>
    <span class="told tiny quiet">{{ told }}</span>
    <ValueField
      label="Level"
      :help="`${name}: darker or brighter`"
      :value="level"
      :low="-100"
      :high="100"
      :step="1"
      :reset="0"
      signed
      :keyed="levelKeyed"
      @trying="emit('trying', { level: $event })"
      @set="emit('set', { level: $event })"
      @key="emit('key', 'level')"
    />
  </div>
</template>

<style scoped>
.wheel {
  display: grid;
  justify-items: center;
  gap: 4px;
  min-width: 0;
}
.head {
  display: flex;
  align-items: center;
  gap: 6px;
  font-size: 13px;
}
.disc {
  position: relative;
  width: min(100%, 132px);
  aspect-ratio: 1;
  border-radius: 50%;
  background:
    radial-gradient(closest-side, #2a2530 0 30%, rgb(42 37 48 / 55%) 70%, transparent 84%),
    var(--ring);
  touch-action: none;
  cursor: grab;
}
.disc::before {
  content: '';
  position: absolute;
  inset: 0;
  border-radius: 50%;
  background:
    linear-gradient(#6d6873 0 0) center / 1px 30%,
    linear-gradient(#6d6873 0 0) center / 30% 1px;
  background-repeat: no-repeat;
}
.spot {
  position: absolute;
  width: 20px;
  height: 20px;
  margin: -10px;
  border-radius: 10px 10px 2px 10px;
  background: #fff;
  box-shadow: 0 0 0 2px #17141a;
}
.wheel :deep(.field) {
  width: 100%;
  grid-template-columns: minmax(30px, 1fr) 34px 20px;
  gap: 4px;
  font-size: 13px;
}
.wheel :deep(.name),
.wheel :deep(.unit) {
  display: none;
}
.wheel :deep(.exact input) {
  width: 34px;
}
</style>
