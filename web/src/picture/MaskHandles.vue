<script setup lang="ts">
/** Masks of the clip in hand, moved, sized, turned and softened by finger. */
import { computed, ref } from 'vue'
import type { Mask, PicturedClip, Step } from '@/api/types'
import { useDraft } from '@/controls/useDraft'
import { useGrip } from '@/controls/useGrip'
import { goneAlong } from '@/motion/along'
import { changedAt, valueAt } from '@/motion/keys'
import { useScreen } from '@/player/inject'
import { startOf, useProject } from '@/stores/project'
import { t } from '@/texts'
import { tickOf } from '@/time'
import { withinWindow } from './knobs'
import { maskShape, type MaskNow } from './masks'
import type { Point } from './placing'
import { useAlong } from './useAlong'
import { usePictureFrame } from './usePictureFrame'

type Grip = 'move' | 'width' | 'height' | 'turn' | 'soft' | 'inner'

const props = defineProps<{
  width: number
  height: number
  masks: Mask[]
  /** Index of the mask in hand. */
  taken: number
  /** The step that sets values of the mask at an index. */
  stepOf: (values: Record<string, unknown>, index: number) => Step
}>()
const emit = defineEmits<{ take: [index: number] }>()
const project = useProject()
const { player } = useScreen()
const { alongOfPart } = useAlong()
const svg = ref<SVGSVGElement | null>(null)

const clip = computed<PicturedClip | null>(() => placing.clip.value)
const masks = computed(() => props.masks)
const local = computed(() =>
  clip.value ? tickOf(player.shown.value, project.rate) - startOf(clip.value) : 0,
)
const { placing, frame } = usePictureFrame(() => props.width)

const draft = useDraft<Partial<MaskNow>>(() => masks.value)

const shown = computed<MaskNow[]>(() =>
  masks.value.map((mask, index) => {
    const now = (name: string, rest: unknown) =>
      valueAt((mask as unknown as Record<string, unknown>)[name], local.value) ?? rest
    const found = {
      kind: mask.kind,
      centre: now('centre', [0, 0]),
      size: now('size', [0.3, 0.3]),
      turn: now('turn', 0),
      grow: now('grow', 0),
      radius: now('radius', 0),
      inwards: now('inwards', 0),
      outwards: now('outwards', 0),
    } as MaskNow
    const along = alongOfPart(mask)
    const seen = along ? goneAlong(found, along) : found
    return index === props.taken && draft.value ? { ...seen, ...draft.value } : seen
  }),
)
const shapes = computed(() => {
  const at = frame.value
  return at ? shown.value.map((mask) => maskShape(mask, at)) : []
})

/** Where the grips of the mask in hand can be taken, wherever they lie. */
const knobs = computed(() => {
  const [at, mask, shape] = [frame.value, shown.value[props.taken], shapes.value[props.taken]]
  if (!at || !mask || !shape) return []
  const [x, y] = mask.centre
  return withinWindow(shape.grips, at.to({ x, y }), props.width, props.height)
})

interface Held {
  grip: Grip
  from: Point
  mask: MaskNow
  /** From where it was taken to where it lies. */
  off: Point
}
let held: Held | null = null
const grip = useGrip<{ index: number; grip: Grip }>({
  begin({ index, grip }, { event }) {
    emit('take', index)
    const mask = shown.value[index]
    const from = spotOf(event)
    held = mask && from ? { grip, from, mask, off: offOf(index, grip, from) } : null
    return Boolean(held)
  },
  move({ event }) {
    const now = spotOf(event)
    if (!held || !now) return
    draft.value = changed(held, { x: now.x + held.off.x, y: now.y + held.off.y })
    player.tryOut(step())
  },
  drop() {
    if (!draft.value) return
    player.endTrial()
    project.edit(step())
  },
  cancel() {
    draft.value = null
    player.tryOut(null)
  },
})

/** Where a finger is, in the picture's own measure. */
function spotOf(event: PointerEvent): Point | null {
  const box = svg.value?.getBoundingClientRect()
  if (!box || !frame.value) return null
  return frame.value.back({ x: event.clientX - box.left, y: event.clientY - box.top })
}

function offOf(index: number, grip: Grip, from: Point): Point {
  const lies = shapes.value[index]?.grips.find((one) => one.id === grip)
  const at = lies && frame.value?.back(lies)
  return at ? { x: at.x - from.x, y: at.y - from.y } : { x: 0, y: 0 }
}

function changed({ mask, from, grip }: Held, now: Point): Partial<MaskNow> {
  const round = (value: number) => Math.round(value * 1000) / 1000
  const [cx, cy] = mask.centre
  const turn = (mask.turn * Math.PI) / 180
  const away = { x: now.x - cx, y: now.y - cy }
  const along = Math.abs(away.x * Math.cos(turn) + away.y * Math.sin(turn))
  const down = away.y * Math.cos(turn) - away.x * Math.sin(turn)
  const across = Math.abs(down)
  const [wide, high] = mask.size
  const { grow } = mask
  if (grip === 'move') return { centre: [round(cx + now.x - from.x), round(cy + now.y - from.y)] }
  if (grip === 'width') return { size: [round(Math.max(0.01, along - grow)), high] }
  if (grip === 'height') return { size: [wide, round(Math.max(0.01, across - grow))] }
  if (grip === 'turn') {
    const angle = (Math.atan2(away.x, -away.y) * 180) / Math.PI
    return { turn: Math.round(angle * 2) / 2 }
  }
  const soft = (by: number) => round(Math.min(0.6, Math.max(0, by)))
  if (grip === 'inner') {
    return { inwards: soft(mask.kind === 'edge' ? grow - down : wide + grow - along) }
  }
  return { outwards: soft(across - (mask.kind === 'edge' ? 0 : high) - grow) }
}

const NAMES: Record<Grip, string> = {
  move: t('picture.maskHandles.middle'),
  width: t('picture.maskHandles.halfWidth'),
  height: t('picture.maskHandles.halfHeight'),
  turn: t('picture.maskHandles.turn'),
  soft: t('picture.maskHandles.softnessOutwards'),
  inner: t('picture.maskHandles.softnessInwards'),
}

/** What a grip changes, as it is: lengths in heights of the picture. */
function told(grip: Grip, index: number): string {
  const mask = shown.value[index]
  if (!mask) return ''
  const values: Record<Grip, () => string> = {
    move: () => t('picture.maskHandles.middleAt', { list: mask.centre.join(', ') }),
    width: () => String(mask.size[0]),
    height: () => String(mask.size[1]),
    turn: () => `${mask.turn}°`,
    soft: () => String(mask.outwards),
    inner: () => String(mask.inwards),
  }
  return values[grip]()
}

/** What is dragged, as keys where the mask has some. */
function step(): Step {
  const old = masks.value[props.taken] as unknown as Record<string, unknown> | undefined
  const along = alongOfPart(masks.value[props.taken] ?? null)
  // Where it goes along, what is seen is not what is kept.
  const kept = along && draft.value ? goneAlong(draft.value, along, true) : draft.value
  const values = Object.entries(kept ?? {}).map(([name, value]) => [
    name,
    changedAt(old?.[name], local.value, value),
  ])
  return props.stepOf(Object.fromEntries(values) as Record<string, unknown>, props.taken)
}
</script>

<template>
  <svg
    v-if="frame"
    ref="svg"
    class="masks"
    :viewBox="`0 0 ${width} ${height}`"
    role="group"
    :aria-label="$t('words.masks')"
    data-test="mask-handles"
  >
    <g v-for="(shape, index) in shapes" :key="index" :class="{ here: index === taken }">
      <path class="soft" :d="shape.soft" />
      <path v-if="shape.inner" class="soft" :d="shape.inner" />
      <path class="line" :d="shape.body" />
      <path
        class="body"
        :class="shown[index]?.kind"
        :d="shape.body"
        data-test="mask-body"
        role="button"
        tabindex="0"
        :aria-label="
          $t('picture.maskHandles.maskArrowsMoveIt', {
            index: index + 1,
            told: told('move', index),
          })
        "
        @keydown="grip.key($event, { index, grip: 'move' })"
        @pointerdown.stop="grip.down($event, { index, grip: 'move' })"
      />
      <template v-if="index === taken">
        <g v-for="knob in knobs" :key="knob.id">
          <circle
            class="reach"
            data-fine
            :cx="knob.x"
            :cy="knob.y"
            r="22"
            :data-test="`mask-${knob.id}`"
            role="button"
            tabindex="0"
            :aria-label="
              $t('picture.maskHandles.ofTheMaskArrowsChange', {
                what: NAMES[knob.id],
                told: told(knob.id, index),
              })
            "
            @keydown="grip.key($event, { index, grip: knob.id })"
            @pointerdown.stop="grip.down($event, { index, grip: knob.id })"
          />
          <path
            v-if="knob.id === 'turn'"
            class="knob"
            :d="`M${knob.x} ${knob.y - 9}l7 6-7 12-7-12z`"
          />
          <circle v-else class="knob" :class="knob.id" :cx="knob.x" :cy="knob.y" r="7" />
        </g>
      </template>
    </g>
  </svg>
</template>

<style scoped>
.masks {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  overflow: hidden;
  touch-action: none;
  pointer-events: none !important;
}
.body {
  fill: transparent;
  stroke: transparent;
  pointer-events: all;
  cursor: move;
}
/* Nothing lies within a straight line: a finger takes it by what is beside it. */
.body.edge {
  stroke-width: 44;
}
.line {
  fill: none;
  stroke: #fff;
  stroke-width: 1.5;
}
.here .line {
  stroke: var(--accent);
  stroke-width: 2;
}
.soft {
  fill: none;
  stroke: #fff;
  stroke-width: 1;
  stroke-dasharray: 4 4;
  opacity: 0.7;
}
.reach {
  fill: transparent;
  pointer-events: all;
  cursor: grab;
}
.knob {
  fill: #fff;
  stroke: var(--accent);
  stroke-width: 2;
  pointer-events: none;
}
.knob.soft,
.knob.inner {
  fill: #161616;
  stroke: #fff;
  opacity: 1;
  stroke-dasharray: none;
}
</style>
