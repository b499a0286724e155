<script setup lang="ts">
/** How the later clip of a join comes after the earlier one. */
import { BButton } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import type { Problem } from '@/api/client'
import { TICKS_PER_SECOND } from '@/api/types'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import ChoiceRow from '@/controls/ChoiceRow.vue'
import ValueField from '@/controls/ValueField.vue'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import { DEFAULT_LENGTH, PARAMS, startOfKind, TRANSITIONS } from '@/timeline/transitions'
import TrayItem from '@/tray/TrayItem.vue'
import type { Join } from '@/inhand/joins'

const props = defineProps<{ join: Join; locked: boolean }>()
const project = useProject()
/** What was refused for too little footage, and why. */
const offer = ref<{ wanted: Record<string, unknown>; problem: Problem } | null>(null)

const now = computed(() => props.join.after.transition ?? null)
const values = computed(() => (now.value ?? {}) as unknown as Record<string, number | string>)
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
  if (kind === 'cut') return send(null)
  send(startOfKind(kind as never, now.value?.length ?? DEFAULT_LENGTH))
}

function set(change: Record<string, unknown>) {
  send({ ...now.value, ...change })
}

async function send(
  transition: Record<string, unknown> | null,
  short: 'refuse' | 'shorten' | 'hold' = 'refuse',
) {
  offer.value = null
  const clip = props.join.after.id ?? ''
  const step = { kind: 'set_transition', clip, transition: transition as never, short } as const
  await project.edit(step, (problem) => {
    if (!['too_little_footage', 'no_footage'].includes(problem.code) || !transition) return false
    offer.value = { wanted: transition, problem }
    return true
  })
}
const told = computed(() => CHOICES.find((one) => one.id === (now.value?.kind ?? 'cut'))?.name)
</script>

<template>
  <fieldset class="how" :disabled="locked">
    <TrayItem :name="$t('cut.transitionPanel.transition')" :told="told">
      <ChoiceGroup
        :label="$t('cut.transitionPanel.transition')"
        :choices="CHOICES"
        :taken="now?.kind ?? 'cut'"
        @take="choose"
      />
      <div v-if="offer" class="offer" role="alert">
        <span>{{ offer.problem.message }}</span>
        <span class="ways">
          <BButton
            v-if="offer.problem.code !== 'no_footage'"
            variant="primary"
            data-test="shorten"
            @click="send(offer.wanted, 'shorten')"
          >
            {{ $t('cut.transitionPanel.shortenIt') }}
          </BButton>
          <BButton variant="secondary" data-test="hold" @click="send(offer.wanted, 'hold')">
            {{ $t('cut.transitionPanel.holdThePicture') }}
          </BButton>
          <BButton variant="secondary" @click="offer = null">{{
            $t('cut.transitionPanel.leaveIt')
          }}</BButton>
        </span>
      </div>
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
  </fieldset>
</template>

<style scoped>
.how {
  display: grid;
  gap: 6px;
  min-width: 0;
}
.how :deep(.field) {
  min-height: 34px;
}
.how :deep(.choices button) {
  padding: 4px 9px;
}
.offer {
  display: grid;
  gap: 6px;
  padding: 8px 10px;
  border-left: 4px solid #e0a63a;
  background: var(--raised);
  border-radius: 4px 10px 2px 4px;
}
.ways,
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
.line {
  justify-content: space-between;
}
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
