<script setup lang="ts">
/** Before it goes out: what is wrong or in doubt, and what is well. */
import { BProgress, BProgressBar } from 'bootstrap-vue-next'
import { computed } from 'vue'
import IconWell from '~icons/tabler/check'
import { useProject } from '@/stores/project'
import { useSending } from '@/stores/sending'
import FindingRow from './FindingRow.vue'
import type { useChecks } from './useChecks'

const props = defineProps<{ checks: ReturnType<typeof useChecks> }>()
const project = useProject()
const sending = useSending()
const lines = computed(() => props.checks.lines.value)
const found = computed(() => (lines.value ?? []).flatMap((line) => line.findings))
const well = computed(() => (lines.value ?? []).filter((line) => !line.findings.length))
</script>

<template>
  <section class="check" :aria-label="$t('send.sendBench.check')">
    <p class="small soft head">
      {{ $t('send.checkPart.goingTo') }} <strong>{{ sending.destination?.title }}</strong>
    </p>
    <BProgress v-if="checks.share.value !== null" :max="1" class="flex-none">
      <BProgressBar
        :value="checks.share.value"
        variant="primary"
        :aria-label="$t('send.checkPart.looking')"
      />
    </BProgress>
    <p v-if="checks.problem.value" class="small">{{ checks.problem.value.message }}</p>
    <div v-if="!project.length" class="empty">
      <strong>{{ $t('send.checkPart.nothingYet') }}</strong>
    </div>
    <p v-else-if="!lines" class="small quiet">{{ $t('send.checkPart.looking') }}</p>
    <template v-else>
      <p v-if="!found.length" class="fw-semibold mb-0" data-test="all-well">
        {{ $t('send.checkPart.allWell') }}
      </p>
      <ul v-else class="list">
        <FindingRow v-for="(one, at) in found" :key="`${one.check}-${at}`" :finding="one" />
      </ul>
      <ul class="list well small" :aria-label="$t('send.checkPart.well')">
        <li v-for="line in well" :key="line.check" :data-well="line.check">
          <IconWell class="sign" aria-hidden="true" /> {{ line.label }}
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.check {
  display: flex;
  flex-direction: column;
  gap: 8px;
  overflow-y: auto;
  min-height: 0;
  height: 100%;
  scrollbar-width: thin;
}
.check > * {
  flex: none;
}
.head {
  margin: 0;
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
.well {
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
  gap: 2px 10px;
  color: var(--soft);
}
.sign {
  color: #6fc3b2;
}
</style>
