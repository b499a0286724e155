<script setup lang="ts">
/** A colour: a swatch that opens the browser's own picker, and its code to type. */
import { computed, ref } from 'vue'
import { useEntry } from '@/tray/useEntry'
import { useDraft } from './useDraft'
import KeyButton, { type Keyed } from './KeyButton.vue'

const props = defineProps<{
  label: string
  value: string
  keyed?: Keyed
  disabled?: boolean
  help?: string
}>()
const emit = defineEmits<{ trying: [value: string]; set: [value: string]; key: [] }>()

const draft = useDraft<string>(() => props.value)
const shown = computed(() => draft.value ?? props.value)

const field = ref<HTMLElement | null>(null)
const { alone, away } = useEntry(
  field,
  () => props.label,
  () => '',
  () => Boolean(props.keyed && props.keyed !== 'none'),
)

function trying(event: Event) {
  draft.value = (event.target as HTMLInputElement).value
  emit('trying', draft.value)
}

function set(event: Event) {
  const value = (event.target as HTMLInputElement).value.trim().toLowerCase()
  const whole = value.startsWith('#') ? value : `#${value}`
  if (!/^#[0-9a-f]{6}$/.test(whole)) {
    ;(event.target as HTMLInputElement).value = props.value
    draft.value = null
    return
  }
  draft.value = whole
  if (whole !== props.value) emit('set', whole)
}
</script>

<template>
  <div ref="field" class="colour" :class="{ keyable: keyed, alone, away }" :title="help">
    <span class="name">{{ label }}</span>
    <input
      type="color"
      :aria-label="label"
      :value="shown"
      :disabled="disabled"
      @input="trying"
      @change="set"
    />
    <input
      type="text"
      class="code"
      maxlength="7"
      spellcheck="false"
      :aria-label="$t('controls.colourField.code', { label })"
      :value="shown"
      :disabled="disabled"
      @change="set"
    />
    <KeyButton v-if="keyed" :label="label" :keyed="keyed" @click="emit('key')" />
  </div>
</template>

<style scoped>
.colour {
  display: grid;
  grid-template-columns: 84px 1fr 88px;
  align-items: center;
  gap: 10px;
  min-height: 34px;
}
.colour.keyable {
  grid-template-columns: 84px 1fr 78px 28px;
  gap: 8px;
}
.name {
  color: var(--soft);
}
input[type='color'] {
  width: 100%;
  min-width: 0;
  height: 26px;
  padding: 0;
  border: 1px solid var(--line);
  border-radius: 7px 7px 2px 7px;
  background: none;
}
input[type='color']::-webkit-color-swatch-wrapper {
  padding: 0;
}
input[type='color']::-webkit-color-swatch {
  border: 0;
  border-radius: 6px 6px 2px 6px;
}
.code {
  width: 100%;
  background: none;
  border: 0;
  border-bottom: 1px dashed var(--line);
  color: var(--text);
  font: inherit;
  font-size: 13px;
  text-align: right;
  min-height: 30px;
}
.colour.alone {
  align-content: center;
  height: 100%;
}
.colour.alone input[type='color'] {
  height: 44px;
}
.colour.alone .code {
  font-size: 17px;
  min-height: 44px;
}
@media (pointer: coarse) {
  .colour input[type='color'] {
    height: var(--touch);
  }
  .colour .code {
    min-height: var(--touch);
  }
  .colour.keyable {
    grid-template-columns: 84px 1fr 74px var(--touch);
    gap: 4px;
  }
}
</style>
