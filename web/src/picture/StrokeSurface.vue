<script setup lang="ts">
/** A sheet over the picture that a finger, or a pen moved by keys, draws one line on. */
import { computed, ref, useId, watch } from 'vue'
import { useGrip } from '@/controls/useGrip'
import type { DrawnPoint, Point } from './placing'
import { usePenKeys } from './usePenKeys'

const props = defineProps<{
  width: number
  height: number
  line: number
  told: string
  wipes?: boolean
  /** Whether the pressure of a pen makes the line wider. */
  presses?: boolean
}>()
const emit = defineEmits<{
  drawn: [points: DrawnPoint[]]
  /** Where the brush is, and where the line that it draws began. */
  at: [at: { tip: Point; from: Point | null } | null]
}>()

const sheet = ref<SVGSVGElement | null>(null)
const points = ref<DrawnPoint[]>([])
const hover = ref<Point | null>(null)
function hovered(event: PointerEvent) {
  if (event.pointerType === 'pen') penAt = event.timeStamp
  hover.value = at(event)
}

/** What a pen draws is as wide as it is pressed, if the brush heeds that. */
const pressed = computed(() =>
  !props.presses || points.value[0]?.pressure === undefined
    ? []
    : points.value.slice(1).map((to, index) => ({
        from: points.value[index] ?? to,
        to,
        wide: Math.max(1, props.line * (to.pressure ?? 1)),
      })),
)
const path = computed(() =>
  points.value.map(({ x, y }) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' '),
)

function at(event: PointerEvent): DrawnPoint {
  const box = sheet.value?.getBoundingClientRect()
  const spot = { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) }
  return event.pointerType === 'pen' ? { ...spot, pressure: event.pressure } : spot
}

/** Milliseconds after a pen was near within which a touch is a palm. */
const PALM = 1000
let penAt = -Infinity

const grip = useGrip({
  slop: 0,
  begin(_, { event }) {
    if (event.pointerType === 'touch' && event.timeStamp - penAt < PALM) return false
    points.value = [at(event)]
  },
  move({ event }) {
    const steps = event.getCoalescedEvents?.() ?? []
    for (const step of steps.length ? steps : [event]) {
      const next = at(step)
      const last = points.value.at(-1)
      if (!last || Math.hypot(next.x - last.x, next.y - last.y) > 1.5) points.value.push(next)
    }
  },
  drop: drawn,
  cancel: () => (points.value = []),
})

function drawn() {
  emit('drawn', points.value)
  points.value = []
}
const help = useId()
const keys = usePenKeys(() => props, points, drawn)
const tip = computed(() => hover.value ?? keys.pen.value)
watch([() => points.value.length, tip], ([many]) => {
  const last = points.value.at(-1) ?? tip.value
  emit('at', last ? { tip: last, from: many ? (points.value[0] ?? null) : null } : null)
})
</script>

<template>
  <svg
    ref="sheet"
    class="sheet"
    :viewBox="`0 0 ${width} ${height}`"
    role="application"
    :aria-label="told"
    :aria-describedby="help"
    tabindex="0"
    data-test="stroke-surface"
    @keydown="keys.press"
    @focus="keys.appear()"
    @blur="keys.leave()"
    @pointerdown="grip.down($event)"
    @pointermove="hovered"
    @pointerleave="hover = null"
  >
    <template v-if="pressed.length">
      <line
        v-for="(part, index) in pressed"
        :key="index"
        :x1="part.from.x"
        :y1="part.from.y"
        :x2="part.to.x"
        :y2="part.to.y"
        :stroke-width="part.wide"
        class="stroke"
        :class="{ wipes }"
      />
    </template>
    <polyline
      v-else-if="points.length"
      :points="points.length > 1 ? path : `${path} ${path}`"
      :stroke-width="Math.max(2, props.line)"
      class="stroke"
      :class="{ wipes }"
    />
    <circle
      v-if="tip && (!points.length || keys.pen.value)"
      class="tip"
      :cx="tip.x"
      :cy="tip.y"
      :r="Math.max(3, props.line / 2)"
    />
  </svg>
  <span :id="help" class="visually-hidden">{{ $t('picture.strokeSurface.byKeys') }}</span>
  <span class="visually-hidden" role="status">{{ keys.told.value }}</span>
</template>

<style scoped>
.sheet {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  touch-action: none;
  cursor: crosshair;
}
.stroke {
  fill: none;
  stroke: rgb(255 138 107 / 55%);
  stroke-linecap: round;
  stroke-linejoin: round;
}
.stroke.wipes {
  stroke: rgb(22 22 22 / 55%);
}
.tip {
  fill: none;
  stroke: #fff;
  stroke-width: 1.5;
}
</style>
