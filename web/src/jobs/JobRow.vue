<script setup lang="ts">
/** A piece of long work: what it is, how far it is, and what can be done about it. */
import { BButton, BProgress, BProgressBar } from 'bootstrap-vue-next'
import { computed } from 'vue'
import IconAgain from '~icons/tabler/refresh'
import IconX from '~icons/tabler/x'
import { isUnfinished, jobText, type Job } from './job'

const props = defineProps<{
  job: Job
  title: string
  /** A small picture of it. */
  picture?: string
  /** What it is, besides its title. */
  facts?: string
  /** Where it is, if whoever shows it knows better. */
  text?: string
}>()
defineEmits<{ cancel: []; again: [] }>()

const open = computed(() => isUnfinished(props.job))
const told = computed(() => props.text ?? jobText(props.job))
const canTryAgain = computed(() => ['failed', 'cancelled'].includes(props.job.state))
</script>

<template>
  <div class="job" :data-job="job.state">
    <img v-if="picture" :src="picture" alt="" class="picture" />
    <div class="words">
      <div class="fw-semibold clip-text">{{ title }}</div>
      <div v-if="facts" class="tiny quiet clip-text">{{ facts }}</div>
      <div class="small soft" :title="told">{{ told }}</div>
      <BProgress v-if="open" :max="1">
        <BProgressBar
          :value="job.share"
          variant="primary"
          :aria-label="$t('jobs.jobRow.shareDone', { title })"
        />
      </BProgress>
      <div v-if="job.state === 'failed'" class="tiny quiet">{{ job.problem?.todo }}</div>
    </div>
    <BButton
      v-if="open"
      variant="secondary"
      :aria-label="$t('jobs.jobRow.cancel', { title })"
      data-test="job-cancel"
      @click="$emit('cancel')"
    >
      <IconX aria-hidden="true" />
    </BButton>
    <BButton
      v-if="canTryAgain"
      variant="secondary"
      :aria-label="$t('jobs.jobRow.tryAgain', { title })"
      :title="$t('words.tryAgain')"
      data-test="job-again"
      @click="$emit('again')"
    >
      <IconAgain aria-hidden="true" />
    </BButton>
    <slot />
  </div>
</template>

<style scoped>
.job {
  display: flex;
  align-items: center;
  gap: 10px;
  min-width: 0;
}
.picture {
  width: 46px;
  height: 64px;
  object-fit: cover;
  border-radius: 8px 8px 2px 8px;
  background: var(--neutral);
  flex: none;
}
.words {
  flex: 1;
  min-width: 0;
}
.job :deep(.btn) {
  flex: none;
  min-width: var(--touch);
  padding: 0 10px;
}
</style>
