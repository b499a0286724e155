<script setup lang="ts">
/** A transition: its kind, or none, and what that kind has to be set. */
import { computed } from 'vue'
import { TICKS_PER_SECOND, type Transition } from '@/api/types'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import ChoiceRow from '@/controls/ChoiceRow.vue'
import ValueField from '@/controls/ValueField.vue'
import { t } from '@/texts'
import { DEFAULT_LENGTH, PARAMS, startOfKind, TRANSITIONS } from '@/timeline/transitions'
import TrayItem from '@/tray/TrayItem.vue'

type Wanted = Record<string, unknown> | null

const props = defineProps<{ now: Transition | null }>()
const emit = defineEmits<{ set: [transition: Wanted] }>()

const values = computed(() => (props.now ?? {}) as unknown as Record<string, number | string>)
const CHOICES = [
  {
    id: 'cut',
    name: t('cut.transitionPanel.noneAtAll'),
    help: t('cut.transitionPanel.noTransition'),
    test: 'transition-cut',
  },
  ...TRANSITIONS.map((one) => ({
    id: one.kind,
    name: one.name,
    help: one.help,
    test: `transition-${one.kind}`,
  })),
]
const PACES = [
  { id: 'steady', name: t('cut.transitionPanel.even') },
  { id: 'soft', name: t('cut.transitionPanel.soft') },
] as const
const SOFT = { kind: 'bezier', x1: 0.42, y1: 0, x2: 0.58, y2: 1 }

function choose(kind: string) {
  if (kind === 'cut') return emit('set', null)
  emit('set', startOfKind(kind as never, props.now?.length ?? DEFAULT_LENGTH))
}

const set = (change: Record<string, unknown>) => emit('set', { ...props.now, ...change })
const told = computed(() => CHOICES.find((one) => one.id === (props.now?.kind ?? 'cut'))?.name)
</script>

<template>
  <TrayItem :name="$t('cut.transitionPanel.transition')" :told="told">
    <ChoiceGroup
      :label="$t('cut.transitionPanel.transition')"
      :choices="CHOICES"
      :taken="now?.kind ?? 'cut'"
      @take="choose"
    />
    <slot />
  </TrayItem>
  <template v-if="now">
    <ValueField
      :label="$t('cut.transitionPanel.length')"
      :value="now.length / TICKS_PER_SECOND"
      :low="0.1"
      :high="3"
      :step="0.1"
      :digits="2"
      unit="s"
      @set="set({ length: Math.round(Math.max(0.05, $event) * TICKS_PER_SECOND) })"
    />
    <ValueField
      v-for="one in PARAMS[now.kind] ?? []"
      :key="one.name"
      :label="one.label"
      :value="Number(values[one.name] ?? one.start) * one.scale"
      :low="one.low"
      :high="one.high"
      :step="one.step"
      :unit="one.unit"
      :reset="one.start * one.scale"
      @set="set({ [one.name]: $event / one.scale })"
    />
    <TrayItem v-if="now.kind === 'dip'" :name="$t('words.colour')">
      <label class="colour">
        <span>{{ $t('words.colour') }}</span>
        <input
          type="color"
          :value="String(values.colour ?? '#000000')"
          @change="set({ colour: ($event.target as HTMLInputElement).value })"
        />
      </label>
    </TrayItem>
    <ChoiceRow
      :name="$t('cut.transitionPanel.pace')"
      :choices="PACES"
      :taken="now.ease?.kind === 'bezier' ? 'soft' : 'steady'"
      @take="set({ ease: $event === 'soft' ? SOFT : { kind: 'steady' } })"
    />
  </template>
</template>

<style scoped>
.colour {
  display: flex;
  align-items: center;
  justify-content: space-between;
  color: var(--soft);
}
.colour input {
  width: 56px;
  height: 34px;
  padding: 2px;
  border: 1px solid var(--line);
  border-radius: var(--fold);
  background: none;
}
</style>
