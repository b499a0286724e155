<script setup lang="ts">
/** Whether each word of the captions lights up while it is said, and how. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import type { Step, TextClip } from '@/api/types'
import { valueAt } from '@/motion/keys'
import { useProject } from '@/stores/project'

const props = defineProps<{ captions: readonly TextClip[] }>()
const project = useProject()

const FIRST = '#ffb454'

const first = computed(() => props.captions.find((one) => one.lit) ?? null)
const colour = computed(() => {
  const lit = first.value?.lit
  const found = lit?.kind === 'plain' ? valueAt(lit.colour, 0) : FIRST
  return typeof found === 'string' ? found : FIRST
})

const set = (values: Record<string, unknown>) =>
  project.edit({
    kind: 'adjust',
    clips: props.captions.map((one) => one.id),
    values,
  } as unknown as Step)
const light = (colour: string | null) => set({ lit: colour ? { kind: 'plain', colour } : null })
</script>

<template>
  <BButton
    variant="secondary"
    size="sm"
    :aria-pressed="Boolean(first)"
    :title="$t('send.litWords.help')"
    data-test="light-words"
    @click="light(first ? null : FIRST)"
  >
    {{ $t('send.litWords.light') }}
  </BButton>
  <template v-if="first">
    <input
      type="color"
      :aria-label="$t('send.litWords.colour')"
      :value="colour"
      data-test="light-colour"
      @change="light(($event.target as HTMLInputElement).value)"
    />
    <BButton
      variant="secondary"
      size="sm"
      :aria-pressed="first.lit_stays ?? false"
      data-test="light-stays"
      @click="set({ lit_stays: !first.lit_stays })"
    >
      {{ $t('send.litWords.stays') }}
    </BButton>
  </template>
</template>

<style scoped>
input {
  width: 48px;
  height: var(--touch);
  padding: 4px;
  border: 1px solid var(--line);
  border-radius: 7px 7px 2px 7px;
  background: none;
}
</style>
