<script setup lang="ts">
/** A push towards a colour: drag anywhere on the wheel, the spot follows at half the pace. */
import { computed, ref } from 'vue'
import { arrowWay } from '@/controls/arrows'
import KeyButton, { type Keyed } from '@/controls/KeyButton.vue'
import { useDraft } from '@/controls/useDraft'
import { useGrip } from '@/controls/useGrip'
import ValueField from '@/controls/ValueField.vue'
import { hueColour } from '@/controls/hues'
import { t } from '@/texts'

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
const draft = useDraft<Push>(() => props.push)
const shown = computed(() => draft.value ?? props.push)
const spot = computed(() => ({
  left: `${50 + shown.value[0] * 50}%`,
  top: `${50 - shown.value[1] * 50}%`,
}))
const strength = computed(() => Math.round(Math.hypot(...shown.value) * 100))
const told = computed(() => {
  const [x, y] = shown.value
  const angle = Math.round(((Math.atan2(y, x) * 180) / Math.PI + 360) % 360)
  return strength.value ? `${strength.value} % · ${angle}°` : t('grade.colourWheel.neutral')
})
const RING = `conic-gradient(from 90deg, ${Array.from({ length: 25 }, (_, i) => hueColour(360 - i * 15)).join(', ')})`

const grip = useGrip<Push>({
  slop: 2,
  move({ dx, dy }, [x, y]) {
    const box = disc.value?.getBoundingClientRect()
    if (!box) return
    draft.value = within([x + dx / box.width, y - dy / box.height])
    emit('trying', { push: draft.value })
  },
  drop: () => draft.value && emit('set', { push: draft.value }),
  cancel: back,
})

/** As it was: the picture too. */
function back() {
  draft.value = null
  emit('trying', { push: props.push })
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
  if (!grip.held.value && draft.value) emit('set', { push: draft.value })
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
      :aria-valuenow="strength"
      :aria-valuetext="told"
      :title="$t('grade.colourWheel.doubleTapBackToNeutral', { help })"
      :style="{ '--ring': RING }"
      @pointerdown="grip.down($event, [...shown])"
      @dblclick="emit('set', { push: [0, 0] })"
      @keydown="nudge"
      @keyup="settle"
    >
      <span class="spot" :style="spot" />
    </div>
    <span class="told tiny quiet">{{ told }}</span>
    <ValueField
      :label="$t('grade.colourWheel.level')"
      :help="$t('grade.colourWheel.darkerOrBrighter', { name })"
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
  grid-template-columns: minmax(0, 1fr) 28px;
  gap: 0 4px;
  font-size: 13px;
}
.wheel :deep(.slider) {
  grid-column: 1 / 3;
  height: 30px;
}
.wheel :deep(.name),
.wheel :deep(.unit) {
  display: none;
}
.wheel :deep(.exact input) {
  width: 44px;
}
.phone .wheel {
  flex: 1;
  grid-template: 'disc head' auto 'disc told' auto 'disc level' 1fr / minmax(0, 44%) minmax(0, 1fr);
  align-items: center;
  justify-items: start;
  gap: 0 14px;
}
.phone .head {
  grid-area: head;
}
.phone .told {
  grid-area: told;
}
.phone .wheel :deep(.field) {
  grid-area: level;
}
.phone .disc {
  grid-area: disc;
  justify-self: center;
  width: auto;
  height: 100%;
  max-width: 100%;
}
.phone .wheel :deep(.field) {
  min-height: 44px;
  grid-template-columns: minmax(40px, 1fr) 48px 44px;
}
@container (max-height: 128px) {
  .phone .wheel .told {
    display: none;
  }
}
/* The row of controls says which wheel it is. */
@container (max-height: 96px) {
  .phone .wheel {
    grid-template: 'disc level head' 1fr / minmax(0, 32%) minmax(0, 1fr) auto;
    gap: 0 8px;
  }
  .phone .wheel strong {
    display: none;
  }
}
.phone .wheel :deep(.slider) {
  grid-column: auto;
  min-height: 44px;
}
</style>
