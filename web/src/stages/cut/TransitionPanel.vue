<script setup lang="ts">
/** How the later clip of a join comes after the earlier one. */
import { BButton } from 'bootstrap-vue-next'
import { ref } from 'vue'
import type { Problem } from '@/api/client'
import { useProject } from '@/stores/project'
import type { Join } from '@/inhand/joins'
import TransitionFields from './TransitionFields.vue'

const props = defineProps<{ join: Join; locked: boolean }>()
const project = useProject()
/** What was refused for too little footage, and why. */
const offer = ref<{ wanted: Record<string, unknown>; problem: Problem } | null>(null)

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
</script>

<template>
  <fieldset class="how" :disabled="locked">
    <TransitionFields :now="join.after.transition ?? null" @set="send($event)">
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
    </TransitionFields>
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
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
</style>
