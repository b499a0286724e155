<script setup lang="ts">
/** An equaliser: its curve with a point for each band, and the values of the band in hand. */
import { computed, ref, shallowRef, watch } from 'vue'
import { client, need } from '@/api/client'
import { arrowWay } from '@/controls/arrows'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import ControlFields from '@/controls/ControlFields.vue'
import SwitchField from '@/controls/SwitchField.vue'
import { useDraft } from '@/controls/useDraft'
import { useGrip } from '@/controls/useGrip'
import { changedAt, valueAt } from '@/motion/keys'
import { useKit } from '@/stores/kit'
import TrayItem from '@/tray/TrayItem.vue'
import {
  decibelsAt,
  FREQUENCIES,
  frequencyAt,
  frequencyLabel,
  H,
  W,
  xOf,
  yOf,
  type Equaliser,
} from './equaliser'

const props = defineProps<{ equaliser: Equaliser; local: number }>()
const emit = defineEmits<{ set: [values: Record<string, unknown>] }>()
const kit = useKit()

type Values = Record<string, unknown>
const draft = useDraft<Values>(() => props.equaliser)
const all = computed(
  () => ({ ...props.equaliser, ...draft.value }) as unknown as Record<string, Values>,
)
const bands = computed(() => kit.sound?.bands ?? [])
const taken = ref('bell')
const band = computed(() => bands.value.find((one) => one.name === taken.value))
const values = computed<Values>(() => all.value[taken.value] ?? {})

const at = (name: string, field: string, fallback: number) =>
  Number(valueAt(all.value[name]?.[field], props.local) ?? fallback)
const points = computed(() =>
  bands.value.map(({ name, title, switched }, index) => {
    const gain = switched ? 0 : at(name, 'gain', 0)
    const frequency = at(name, 'frequency', 1000)
    const off = switched ? !all.value[name]?.on : gain === 0
    return { name, title, switched, number: index + 1, frequency, gain, off }
  }),
)

const curve = shallowRef<number[]>([])
let asked = 0
watch(
  [all, () => props.local],
  async () => {
    const mine = ++asked
    try {
      const body = { equaliser: all.value as never, tick: props.local, frequencies: FREQUENCIES }
      const found = await need(client.POST('/api/equaliser/curve', { body }))
      if (mine === asked) curve.value = found
    } catch {
      // The line stays as it was; the values beside it are what counts.
    }
  },
  { immediate: true },
)
const line = computed(() =>
  curve.value
    .map((gain, index) => `${xOf(FREQUENCIES[index] ?? 20).toFixed(1)},${yOf(gain).toFixed(1)}`)
    .join(' '),
)

/** Values of a band as they are kept: with keys where there are some. */
function within(name: string, change: Values): Values {
  const old = all.value[name] ?? {}
  const keyed = Object.entries(change).map(([field, value]) => [
    field,
    field === 'on' ? value : changedAt(old[field], props.local, value),
  ])
  return { ...old, ...Object.fromEntries(keyed) }
}

const svg = ref<SVGSVGElement | null>(null)
let from = { x: 0, y: 0 }
const grip = useGrip<string>({
  slop: 3,
  begin(name) {
    taken.value = name
    const point = points.value.find((one) => one.name === name)
    from = { x: xOf(point?.frequency ?? 1000), y: yOf(point?.gain ?? 0) }
  },
  move({ dx, dy }, name) {
    const box = svg.value?.getBoundingClientRect()
    if (!box) return
    const frequency = frequencyAt(from.x + (dx / box.width) * W)
    const switched = points.value.find((one) => one.name === name)?.switched
    const more = switched ? { on: true } : { gain: decibelsAt(from.y + (dy / box.height) * H) }
    draft.value = { [name]: within(name, { frequency, ...more }) }
  },
  drop: () => draft.value && emit('set', draft.value),
  cancel: () => (draft.value = null),
})

function nudge(event: KeyboardEvent, name: string) {
  const by = arrowWay(event)
  const point = points.value.find((one) => one.name === name)
  if (!by || !point) return
  event.preventDefault()
  event.stopPropagation()
  const frequency = Math.round(Math.min(20_000, Math.max(20, point.frequency * 1.03 ** by[0])))
  const more = point.switched
    ? { on: true }
    : { gain: Math.round((point.gain + by[1] * 0.5) * 10) / 10 }
  const change = { [name]: within(name, { frequency, ...more }) }
  draft.value = change
  emit('set', change)
}

const setBand = (change: Values) => emit('set', { [taken.value]: { ...values.value, ...change } })
</script>

<template>
  <TrayItem :name="$t('mix.equaliserPart.curve')">
    <svg
      ref="svg"
      class="graph"
      :viewBox="`0 0 ${W} ${H}`"
      preserveAspectRatio="none"
      role="group"
      :aria-label="$t('mix.equaliserPart.curve')"
      data-test="equaliser"
    >
      <path
        class="grid"
        :d="
          [100, 1000, 10000].map((f) => `M${xOf(f)} 0V${H}`).join('') +
          [-12, -6, 6, 12].map((g) => `M0 ${yOf(g)}H${W}`).join('')
        "
      />
      <path class="rest" :d="`M0 ${H / 2}H${W}`" />
      <polyline :points="line" />
    </svg>
    <div class="handles">
      <button
        v-for="point in points"
        :key="point.name"
        class="handle"
        :class="{ off: point.off, taken: taken === point.name }"
        :style="{
          left: `${(xOf(point.frequency) / W) * 100}%`,
          top: `${(yOf(point.gain) / H) * 100}%`,
        }"
        :aria-label="
          $t('mix.equaliserPart.band', {
            title: point.title,
            frequency: frequencyLabel(point.frequency),
            gain: point.gain,
          })
        "
        :title="point.title"
        :data-test="`band-${point.name}`"
        @pointerdown="grip.down($event, point.name)"
        @focus="taken = point.name"
        @keydown="nudge($event, point.name)"
      >
        <span>{{ point.number }}</span>
      </button>
    </div>
  </TrayItem>
  <TrayItem :name="$t('mix.equaliserPart.bands')" :told="band?.title">
    <div class="line bands">
      <ChoiceGroup
        :label="$t('mix.equaliserPart.bands')"
        :choices="bands.map((one, i) => ({ id: one.name, name: `${i + 1} ${one.title}` }))"
        :taken="taken"
        @take="taken = $event"
      />
    </div>
  </TrayItem>
  <TrayItem
    v-if="band?.switched"
    :name="band.title"
    :told="values.on ? $t('words.isOn') : $t('words.isOff')"
  >
    <SwitchField :on="Boolean(values.on)" @update:on="setBand({ on: $event })">
      {{ band.title }}
    </SwitchField>
  </TrayItem>
  <ControlFields
    v-if="band"
    :key="band.name"
    :controls="band.controls"
    :values="values"
    :local="local"
    @set="setBand"
  />
</template>

<style scoped>
.graph {
  display: block;
  width: 100%;
  height: 150px;
  flex: none;
  border-radius: var(--fold);
  background: #100d13;
}
.grid {
  fill: none;
  stroke: #ffffff14;
  vector-effect: non-scaling-stroke;
}
.rest {
  stroke: #ffffff3a;
  vector-effect: non-scaling-stroke;
}
polyline {
  fill: none;
  stroke: #8fd3c6;
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
}
.handles {
  position: relative;
  height: 150px;
  margin-top: -150px;
  flex: none;
  pointer-events: none;
}
.handle {
  position: absolute;
  width: var(--touch);
  height: var(--touch);
  margin: calc(var(--touch) / -2) 0 0 calc(var(--touch) / -2);
  display: grid;
  place-items: center;
  border: 0;
  padding: 0;
  background: none;
  pointer-events: auto;
  touch-action: none;
}
.handle span {
  display: grid;
  place-items: center;
  width: 20px;
  height: 20px;
  border-radius: 10px 10px 3px 10px;
  background: var(--text);
  color: #17141a;
  font-size: 12px;
  font-weight: 700;
}
.handle.off span {
  background: #4a4152;
  color: var(--soft);
}
.handle.taken span {
  background: var(--mark);
  color: #17141a;
}
.bands {
  padding: 6px 0;
}
.phone .graph,
.phone .handles {
  height: 112px;
}
.phone .handles {
  margin-top: -118px;
}
</style>
