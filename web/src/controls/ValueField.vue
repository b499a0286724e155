<script setup lang="ts">
/** A value: a slider for the eye, and the exact number to type. */
import { computed, ref } from 'vue'
import IconLess from '~icons/tabler/minus'
import IconMore from '~icons/tabler/plus'
import { useEntry } from '@/tray/useEntry'
import { useDraft } from './useDraft'
import { useTwice } from './useTwice'
import KeyButton, { type Keyed } from './KeyButton.vue'

const props = defineProps<{
  label: string
  value: number
  low: number
  high: number
  step: number
  unit?: string
  digits?: number
  reset?: number
  disabled?: boolean
  note?: string
  /** Show a plus where it is above 0. */
  signed?: boolean
  /** Whether it has keys, and one here; without it, it cannot have any. */
  keyed?: Keyed
  /** What lies under the slider, as a CSS background. */
  ground?: string
  /** What it does, as a sentence. */
  help?: string
}>()
const emit = defineEmits<{ trying: [value: number]; set: [value: number]; key: [] }>()

const draft = useDraft<number>(() => props.value)
const shown = computed(() => draft.value ?? props.value)
const dragging = ref(false)

const text = computed(() => {
  const plain = shown.value.toFixed(props.digits ?? 0).replace(/^-(0\.?0*)$/, '$1')
  return props.signed && Number(plain) > 0 ? `+${plain}` : plain
})
/** Filled from where it rests, if that is within its range. */
const filled = computed(() => {
  const share = (value: number) =>
    Math.min(1, Math.max(0, (value - props.low) / (props.high - props.low))) * 100
  const rest = props.signed && props.reset !== undefined ? share(props.reset) : 0
  const now = share(shown.value)
  return { '--from': `${Math.min(rest, now)}%`, '--to': `${Math.max(rest, now)}%` }
})

function slide(event: Event) {
  dragging.value = true
  draft.value = Number((event.target as HTMLInputElement).value)
  emit('trying', draft.value)
}

function settle() {
  if (!dragging.value) return
  dragging.value = false
  if (shown.value !== props.value) emit('set', shown.value)
}

function type(event: Event) {
  const field = event.target as HTMLInputElement
  const typed = Number(field.value.replace(',', '.'))
  if (field.value.trim() && Number.isFinite(typed)) {
    draft.value = typed
    if (typed !== props.value) emit('set', typed)
  }
  field.value = text.value
}

function stepBy(steps: number) {
  const digits = props.digits ?? 0
  const to = Number((shown.value + steps * props.step).toFixed(Math.max(digits, 3)))
  const bounded = Math.min(props.high, Math.max(props.low, to))
  draft.value = bounded
  if (bounded !== props.value) emit('set', bounded)
}

const field = ref<HTMLElement | null>(null)
const { alone, away } = useEntry(
  field,
  () => props.label,
  () => (props.note ? '' : `${text.value}${props.unit ?? ''}`),
  () => Boolean(props.keyed && props.keyed !== 'none'),
)

function back() {
  if (props.reset === undefined || props.disabled) return
  dragging.value = false
  draft.value = props.reset
  if (props.reset !== props.value) emit('set', props.reset)
}

const twice = useTwice(back)
</script>

<template>
  <div ref="field" class="field" :class="{ disabled, keyable: keyed, alone, away }">
    <button
      type="button"
      class="name"
      :title="
        reset === undefined
          ? (help ?? label)
          : (help ? `${help}. ` : '') +
            $t('controls.valueField.doubleTapBackTo', {
              reset: reset.toFixed(digits ?? 0),
              unit: unit ?? '',
            })
      "
      tabindex="-1"
      :aria-label="
        alone && reset !== undefined ? $t('controls.valueField.resetNamed', { label }) : undefined
      "
      data-test="field-name"
      @pointerup="alone ? back() : twice($event)"
    >
      {{ alone && reset !== undefined ? $t('controls.valueField.reset') : label }}
    </button>
    <span v-if="note" class="note tiny quiet">{{ note }}</span>
    <template v-else>
      <input
        type="range"
        class="slider"
        :style="[filled, ground ? { '--ground': ground } : {}]"
        :aria-label="label"
        :min="low"
        :max="high"
        :step="step"
        :value="shown"
        :disabled="disabled"
        @input="slide"
        @change="settle"
        @blur="settle"
        @pointerup="twice"
      />
      <button
        v-if="alone"
        type="button"
        class="btn btn-secondary less"
        :aria-label="$t('controls.valueField.less', { label })"
        :disabled="disabled"
        data-test="less"
        @click="stepBy(-1)"
      >
        <IconLess aria-hidden="true" />
      </button>
      <button
        v-if="alone"
        type="button"
        class="btn btn-secondary more"
        :aria-label="$t('controls.valueField.more', { label })"
        :disabled="disabled"
        data-test="more"
        @click="stepBy(1)"
      >
        <IconMore aria-hidden="true" />
      </button>
      <span class="exact">
        <input
          type="text"
          inputmode="decimal"
          :aria-label="$t('controls.valueField.exact', { label })"
          :value="text"
          :disabled="disabled"
          @change="type"
          @keydown.enter="($event.target as HTMLInputElement).blur()"
        /><span class="unit">{{ unit }}</span>
      </span>
      <KeyButton
        v-if="keyed"
        :label="label"
        :keyed="keyed"
        :disabled="disabled"
        @click="emit('key')"
      />
    </template>
  </div>
</template>

<style scoped>
.field {
  display: grid;
  grid-template-columns: 84px 1fr 88px;
  align-items: center;
  gap: 10px;
  min-height: var(--touch);
}
.name {
  border: 0;
  background: none;
  padding: 0;
  text-align: left;
  color: var(--soft);
}
.note {
  grid-column: 2 / 4;
}
.slider {
  appearance: none;
  width: 100%;
  height: 100%;
  background: none;
  touch-action: pan-y;
}
.slider::-webkit-slider-runnable-track {
  height: 4px;
  border-radius: 2px;
  background: var(
    --ground,
    linear-gradient(
      to right,
      var(--line) var(--from),
      #cdb8e6 var(--from) var(--to),
      var(--line) var(--to)
    )
  );
}
.slider::-moz-range-track {
  height: 4px;
  border-radius: 2px;
  background: var(--line);
}
.slider::-webkit-slider-thumb {
  appearance: none;
  width: 20px;
  height: 20px;
  margin-top: -8px;
  border: 0;
  border-radius: 10px 10px 2px 10px;
  background: var(--text);
}
.slider::-moz-range-thumb {
  width: 20px;
  height: 20px;
  border: 0;
  border-radius: 10px 10px 2px 10px;
  background: var(--text);
}
.exact {
  display: flex;
  align-items: center;
  justify-content: flex-end;
  font-weight: 600;
}
.exact input {
  width: 56px;
  background: none;
  border: 0;
  border-bottom: 1px dashed var(--line);
  color: var(--text);
  text-align: right;
  font: inherit;
  font-weight: 600;
  min-height: 30px;
}
.unit {
  width: 26px;
  padding-left: 4px;
  color: var(--quiet);
  font-weight: 500;
}
.keyable {
  grid-template-columns: 84px 1fr 78px 28px;
  gap: 8px;
}
.disabled {
  opacity: 0.5;
}
@media (pointer: coarse) {
  .keyable {
    grid-template-columns: 84px 1fr 74px var(--touch);
    gap: 4px;
  }
  .name,
  .exact input {
    min-height: var(--touch);
    min-width: var(--touch);
  }
}
/* With the place to itself: as wide as the page, and large enough for a thumb. */
.field.alone {
  grid-template: 'less exact more name key' 44px 'slider slider slider slider slider' 48px / 52px 132px 52px 1fr 48px;
  align-content: center;
  gap: 4px 8px;
  height: 100%;
}
.field.alone:not(.keyable) {
  grid-template-columns: 52px 132px 52px 1fr 0;
}
.field.alone .name {
  grid-area: name;
  text-align: right;
  font-size: 13px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.field.alone .less {
  grid-area: less;
}
.field.alone .more {
  grid-area: more;
}
.field.alone .exact {
  grid-area: exact;
  justify-content: center;
}
.field.alone .exact input {
  width: 92px;
  font-size: 22px;
  min-height: 44px;
}
.field.alone .unit {
  width: auto;
}
.field.alone .key {
  grid-area: key;
  height: 44px;
}
.field.alone .note {
  grid-area: exact / exact / slider / key;
}
.field.alone .slider {
  grid-area: slider;
}
.field.alone .slider::-webkit-slider-runnable-track {
  height: 6px;
}
.field.alone .slider::-webkit-slider-thumb {
  width: 34px;
  height: 34px;
  margin-top: -14px;
  border-radius: 17px 17px 4px 17px;
}
.field.alone .slider::-moz-range-thumb {
  width: 34px;
  height: 34px;
}
@container (max-height: 92px) {
  .field.alone,
  .field.alone:not(.keyable) {
    grid-template: 'less slider more exact key' minmax(44px, 1fr) / 44px 1fr 44px 84px 44px;
    gap: 4px;
  }
  .field.alone .name {
    display: none;
  }
  .field.alone .exact input {
    width: 58px;
    font-size: 17px;
  }
}
</style>
