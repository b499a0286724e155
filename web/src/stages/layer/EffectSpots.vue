<script setup lang="ts">
/** Where an effect is at work, dragged on the picture: its point and, around it, how far it reaches. */
import { computed, ref } from 'vue'
import type { Effect } from '@/api/types'
import { useDraft } from '@/controls/useDraft'
import { useGrip } from '@/controls/useGrip'
import type { Layer } from '@/inhand/useLayer'
import { changedAt, valueAt } from '@/motion/keys'
import type { Frame } from '@/picture/masks'
import PictureKnob from '@/picture/PictureKnob.vue'
import { useKit } from '@/stores/kit'

const props = defineProps<{
  layer: Layer
  effect: Effect
  width: number
  height: number
  frame: Frame
}>()
const kit = useKit()

type Name = 'spot' | 'reach'
const svg = ref<SVGSVGElement | null>(null)
const values = computed(() => props.effect as unknown as Record<string, unknown>)
const draft = useDraft<Record<string, unknown>>(() => props.effect)
const controls = computed(
  () => kit.layer?.effects.find((one) => one.kind === props.effect.kind)?.controls ?? [],
)
/** The parameter that is a point on the picture, and the one that is a length around it. */
const spot = computed(() => controls.value.find((one) => one.control === 'spot'))
const reach = computed(() =>
  controls.value.find((one) => one.name === 'reach' && one.unit === 'px'),
)
function now<T>(name: string, rest: unknown): T {
  return (valueAt({ ...values.value, ...draft.value }[name], props.layer.local.value) ?? rest) as T
}
const centre = computed(() => now<[number, number]>(spot.value?.name ?? '', [0, 0]))
const radius = computed(() => (reach.value ? now<number>('reach', reach.value.default) : 0))
const knobs = computed(() => {
  const [x, y] = centre.value
  const found = [{ name: 'spot' as Name, ...props.frame.to({ x, y }) }]
  if (reach.value) found.push({ name: 'reach', ...props.frame.to({ x: x + radius.value, y }) })
  return found
})
const RIM = Array.from({ length: 61 }, (_, step) => (step / 60) * 2 * Math.PI)
const rim = computed(() =>
  RIM.map((angle) => {
    const [x, y] = centre.value
    const on = props.frame.to({
      x: x + radius.value * Math.cos(angle),
      y: y + radius.value * Math.sin(angle),
    })
    return `${on.x.toFixed(1)},${on.y.toFixed(1)}`
  }).join(' '),
)

function dragged(name: Name, left: number, top: number): Record<string, unknown> {
  const box = svg.value?.getBoundingClientRect()
  const { x, y } = props.frame.back({ x: left - (box?.left ?? 0), y: top - (box?.top ?? 0) })
  const path = name === 'spot' ? (spot.value?.name ?? '') : 'reach'
  const [fromX, fromY] = centre.value
  const to =
    name === 'spot' ? [tenths(x), tenths(y)] : Math.max(1, tenths(Math.hypot(x - fromX, y - fromY)))
  return { [path]: changedAt(values.value[path], props.layer.local.value, to) }
}

const tenths = (value: number) => Math.round(value * 10) / 10

const id = computed(() => props.effect.id ?? '')
const grip = useGrip<Name>({
  move({ x, y }, name) {
    draft.value = dragged(name, x, y)
    props.layer.tryPart('effects', id.value, draft.value)
  },
  drop: () => draft.value && props.layer.setPart('effects', id.value, draft.value),
  cancel() {
    draft.value = null
    props.layer.endTrial()
  },
})
</script>

<template>
  <svg
    v-if="spot"
    ref="svg"
    class="spots"
    :viewBox="`0 0 ${width} ${height}`"
    role="group"
    :aria-label="$t('layer.effectSpots.whereTheEffectIs')"
    data-test="effect-spots"
  >
    <polyline v-if="reach" class="rim" :points="rim" />
    <PictureKnob
      v-for="one in knobs"
      :key="one.name"
      :x="one.x"
      :y="one.y"
      :dark="one.name === 'reach'"
      :label="
        one.name === 'spot'
          ? $t('layer.effectSpots.pointAt', { at: centre.join(', ') })
          : $t('layer.effectSpots.reachOf', { px: radius })
      "
      :test="`effect-${one.name}`"
      @down="grip.down($event, one.name)"
      @key="grip.key($event, one.name)"
    />
  </svg>
</template>

<style scoped>
.spots {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  overflow: visible;
  touch-action: none;
  pointer-events: none;
}
.rim {
  fill: none;
  stroke: #fff;
  stroke-width: 1.5;
  stroke-dasharray: 5 5;
  filter: drop-shadow(0 0 1px #000);
}
</style>
