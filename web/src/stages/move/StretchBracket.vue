<script setup lang="ts">
/** Under the keys in hand: dragged by an end, they come nearer together or go further apart. */
import { useGrip } from '@/controls/useGrip'
import type { Stays } from './graph'

const props = defineProps<{
  /** Pixels of the graph where the first and the last key in hand are. */
  from: number
  to: number
  bottom: number
  /** Pixels of a frame: they never come to lie on one. */
  frame: number
}>()
const emit = defineEmits<{ trying: [number, Stays]; set: [number, Stays]; cancel: [] }>()

const ENDS = ['last', 'first'] as const
/** Each end by what stays where it is while that is dragged. */
const xOf = (stays: Stays) => (stays === 'first' ? props.to : props.from)

/** How long they are when the drag begins. */
let long = 1
const factorOf = (dx: number, stays: Stays) =>
  Math.max(props.frame, long + (stays === 'first' ? dx : -dx)) / long
const grip = useGrip<Stays>({
  begin: () => void (long = props.to - props.from),
  move: ({ dx }, stays) => emit('trying', factorOf(dx, stays), stays),
  drop: ({ dx }, stays) => emit('set', factorOf(dx, stays), stays),
  cancel: () => emit('cancel'),
})

function key(event: KeyboardEvent, stays: Stays) {
  const way = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
  if (!way) return
  event.preventDefault()
  event.stopPropagation()
  long = props.to - props.from
  emit('set', factorOf(way * props.frame * (event.shiftKey ? 10 : 1), stays), stays)
}
</script>

<template>
  <g class="bracket" data-test="key-bracket">
    <path
      class="line"
      :d="`M${from} ${bottom - 9}V${bottom - 2}H${to}V${bottom - 9}`"
      aria-hidden="true"
    />
    <rect
      v-for="stays in ENDS"
      :key="stays"
      class="reach"
      :x="xOf(stays) - (stays === 'first' ? 6 : 26)"
      :y="bottom - 18"
      width="32"
      height="20"
      tabindex="0"
      role="slider"
      :aria-label="
        stays === 'first'
          ? $t('move.stretchBracket.endOfTheKeys')
          : $t('move.stretchBracket.startOfTheKeys')
      "
      :aria-valuenow="Math.round((to - from) / frame)"
      :aria-valuetext="$t('move.stretchBracket.frames', Math.round((to - from) / frame))"
      :data-test="`key-bracket-${stays === 'first' ? 'end' : 'start'}`"
      @pointerdown.stop="grip.down($event, stays)"
      @keydown="key($event, stays)"
    />
  </g>
</template>

<style scoped>
.line {
  fill: none;
  stroke: var(--accent);
  stroke-width: 2.5;
  stroke-linecap: round;
  stroke-linejoin: round;
  pointer-events: none;
}
.reach {
  fill: transparent;
  cursor: ew-resize;
}
</style>
