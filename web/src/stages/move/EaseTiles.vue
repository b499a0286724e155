<script setup lang="ts">
/** The pace after the keys in hand: presets that show how they move, and what can be set of them. */
import { computed, ref, watch } from 'vue'
import ValueField from '@/controls/ValueField.vue'
import { eased, PRESETS, type Ease, type Preset } from '@/motion/easing'
import { useKit } from '@/stores/kit'
import { useMoving } from '@/stores/moving'
import type { KeysInHand } from '@/inhand/useKeys'
import { t } from '@/texts'

const props = defineProps<{
  keys: KeysInHand
  /** Whether the property that is shown has keys: they are all meant while none is in hand. */
  hasKeys: boolean
}>()
const emit = defineEmits<{ all: [] }>()
const moving = useMoving()
const kit = useKit()

/** The ease of the first key in hand. */
const now = computed<Ease | null>(() => {
  const first = moving.keys[0]
  return first ? (props.keys.keyOf(first)?.ease ?? { kind: 'steady' }) : null
})
const draft = ref<Ease | null>(null)
watch(now, () => (draft.value = null))
const shown = computed(() => draft.value ?? now.value)

const same = (a: Ease | null, b: Ease) =>
  Boolean(a) && Object.entries(b).every(([name, value]) => a?.[name as keyof Ease] === value)
const tiles = computed<Preset[]>(() => {
  const last = moving.lastEase
  const known = last && PRESETS.some((one) => same(last, one.ease))
  return last && !known
    ? [{ id: 'last', name: t('move.easeTiles.lastUsed'), ease: last }, ...PRESETS]
    : PRESETS
})
const taken = computed(() => tiles.value.find((one) => same(shown.value, one.ease))?.id ?? '')

const controls = computed(
  () => kit.move?.eases.find((one) => one.kind === shown.value?.kind)?.controls ?? [],
)
const valueOf = (name: string) => Number((shown.value as Record<string, unknown> | null)?.[name])
const withValue = (name: string, value: number): Ease => ({
  ...(shown.value ?? { kind: 'steady' }),
  [name]: value,
})
const turns = computed(() => ['steps', 'bounce', 'spring'].includes(shown.value?.kind ?? ''))

function choose(ease: Ease) {
  if (!props.keys.count.value) emit('all')
  void props.keys.ease(ease)
}

function trying(name: string, value: number) {
  draft.value = withValue(name, value)
  props.keys.tryEase(draft.value)
}

const WIDTH = 46
const HEIGHT = 26
function drawn(ease: Ease): string {
  return Array.from({ length: 33 }, (_, i) => {
    const y = HEIGHT - 6 - eased(ease, i / 32) * (HEIGHT - 12)
    return `${i ? 'L' : 'M'}${((i / 32) * (WIDTH - 4) + 2).toFixed(1)} ${y.toFixed(1)}`
  }).join('')
}
/** The same pace for a browser's own animation. */
const pace = (ease: Ease) =>
  `linear(${Array.from({ length: 41 }, (_, i) => eased(ease, i / 40).toFixed(3)).join(', ')})`
</script>

<template>
  <div class="eases">
    <div class="tiles" tabindex="0" role="group" :aria-label="$t('move.easeTiles.easing')">
      <button
        v-for="one in tiles"
        :key="one.id"
        type="button"
        class="tile"
        :aria-pressed="taken === one.id"
        :disabled="!keys.count.value && !hasKeys"
        :title="
          keys.count.value
            ? $t('move.easeTiles.fromTheKeysInHand', { name: one.name })
            : $t('move.easeTiles.fromEveryKey', { name: one.name })
        "
        :data-test="`ease-${one.id}`"
        @click="choose(one.ease)"
      >
        <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" aria-hidden="true">
          <path :d="drawn(one.ease)" />
        </svg>
        <span class="way" aria-hidden="true">
          <span class="dot" :style="{ animationTimingFunction: pace(one.ease) }" />
        </span>
        <span class="tiny">{{ one.name }}</span>
      </button>
    </div>
    <template v-if="keys.count.value">
      <ValueField
        v-for="one in controls"
        :key="one.name"
        :label="one.name.charAt(0).toUpperCase() + one.name.slice(1)"
        :help="one.help"
        :value="valueOf(one.name)"
        :low="one.low ?? 0"
        :high="one.high ?? 1"
        :step="one.step ?? 1"
        :digits="(one.step ?? 1) < 1 ? 2 : 0"
        @trying="trying(one.name, $event)"
        @set="keys.ease(withValue(one.name, $event))"
      />
      <label v-if="turns" class="form-check form-switch">
        <input
          type="checkbox"
          role="switch"
          class="form-check-input"
          :checked="shown?.backwards ?? false"
          @change="
            keys.ease({
              ...(shown ?? { kind: 'steady' }),
              backwards: ($event.target as HTMLInputElement).checked,
            })
          "
        />
        <span>{{ $t('move.easeTiles.theOtherWayRoundAt') }}</span>
      </label>
    </template>
  </div>
</template>

<style scoped>
.eases {
  display: grid;
  gap: 4px;
  min-width: 0;
}
.tiles {
  display: flex;
  gap: 5px;
  overflow-x: auto;
  scrollbar-width: thin;
  padding-bottom: 4px;
}
.tile {
  flex: none;
  width: 68px;
  display: grid;
  justify-items: center;
  gap: 2px;
  padding: 4px 2px;
  border: 1px solid transparent;
  border-radius: var(--fold);
  background: var(--raised);
  color: var(--soft);
  white-space: nowrap;
}
.tile:disabled {
  opacity: 0.55;
}
.tile[aria-pressed='true'] {
  border-color: var(--accent);
  color: var(--text);
}
svg {
  width: 46px;
  height: 26px;
}
path {
  fill: none;
  stroke: #cdb8e6;
  stroke-width: 2;
}
.way {
  position: relative;
  width: 44px;
  height: 8px;
  border-bottom: 1px solid var(--line);
}
.dot {
  position: absolute;
  left: 0;
  top: 0;
  width: 7px;
  height: 7px;
  border-radius: 4px 4px 1px 4px;
  background: var(--accent);
}
.tile:hover .dot,
.tile:focus-visible .dot,
.tile[aria-pressed='true'] .dot {
  animation: go 1.5s infinite;
}
@media (hover: none) {
  .dot {
    animation: go 1.8s infinite;
  }
}
@keyframes go {
  to {
    transform: translateX(37px);
  }
}
@media (prefers-reduced-motion: reduce) {
  .dot {
    animation: none !important;
  }
}
.form-switch {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 34px;
  margin: 0;
}
</style>
