<script setup lang="ts">
/** A gain on an upright way: dragged, by arrow keys, twice tapped back to 0. */
import { computed, ref } from 'vue'
import { useDraft } from '@/controls/useDraft'
import { useGrip } from '@/controls/useGrip'
import { useTwice } from '@/controls/useTwice'
import { decibelsAt, gainLabel, HIGHEST, LOWEST, shareOf } from '@/controls/faders'

const props = defineProps<{ label: string; value: number; disabled?: boolean; keyed?: boolean }>()
const emit = defineEmits<{ set: [value: number] }>()

const way = ref<HTMLElement | null>(null)
const draft = useDraft<number>(() => props.value)
const shown = computed(() => draft.value ?? props.value)
const round = (decibels: number) => Math.round(decibels * 10) / 10

/** Near 0 it stays at 0. */
const SNAP = 0.35
let from = 0
const grip = useGrip({
  begin() {
    from = shareOf(shown.value)
    return !props.disabled
  },
  move({ dy }) {
    const length = Math.max(1, (way.value?.clientHeight ?? 1) - 22)
    const to = round(decibelsAt(Math.min(1, Math.max(0, from - dy / length))))
    draft.value = Math.abs(to) < SNAP ? 0 : to
  },
  drop: () => keep(shown.value),
  cancel: () => (draft.value = null),
})

function keep(value: number) {
  if (value !== props.value) emit('set', value)
}

const STEPS: Record<string, number> = { ArrowUp: 0.5, ArrowDown: -0.5, PageUp: 3, PageDown: -3 }
function press(event: KeyboardEvent) {
  const by = STEPS[event.key]
  if (by === undefined || event.ctrlKey || event.metaKey || event.altKey) return
  event.preventDefault()
  event.stopPropagation()
  const to = Math.min(HIGHEST, Math.max(LOWEST, round(shown.value + by)))
  draft.value = to
  keep(to)
}

const twice = useTwice(() => {
  draft.value = 0
  keep(0)
})
</script>

<template>
  <div
    ref="way"
    class="fader"
    :class="{ disabled, keyed }"
    role="slider"
    tabindex="0"
    aria-orientation="vertical"
    :aria-label="label"
    :aria-valuemin="LOWEST"
    :aria-valuemax="HIGHEST"
    :aria-valuenow="shown"
    :aria-valuetext="`${gainLabel(shown)} dB`"
    :aria-disabled="disabled"
    data-test="fader"
    @pointerdown="grip.down($event)"
    @pointerup="twice"
    @keydown="press"
  >
    <i class="way" />
    <i class="even" :style="{ bottom: `calc(11px + (100% - 22px) * ${shareOf(0)})` }" />
    <i class="thumb" :style="{ bottom: `calc((100% - 22px) * ${shareOf(shown)})` }" />
  </div>
</template>

<style scoped>
.fader {
  position: relative;
  width: 44px;
  height: 100%;
  min-height: 60px;
  touch-action: none;
  cursor: ns-resize;
}
.fader.disabled {
  opacity: 0.5;
  cursor: default;
}
.way {
  position: absolute;
  left: 50%;
  top: 11px;
  bottom: 11px;
  width: 4px;
  margin-left: -2px;
  border-radius: 2px;
  background: var(--line);
}
.even {
  position: absolute;
  left: 10px;
  right: 10px;
  height: 1px;
  background: #ffffff40;
}
.thumb {
  position: absolute;
  left: 7px;
  right: 7px;
  height: 22px;
  border-radius: 11px 11px 3px 11px;
  background: var(--text);
}
.keyed .thumb {
  background: var(--mark);
}
</style>
