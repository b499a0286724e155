<script setup lang="ts">
/** Says whether steps are kept; tapped while some wait, it sends them now. */
import { useOnline } from '@vueuse/core'
import { computed } from 'vue'
import IconWaiting from '~icons/tabler/cloud-off'
import { reachable } from '@/api/reach'
import { useProject } from '@/stores/project'
import { isAmiss, savingText, type Saving } from '@/steps/saving'

const project = useProject()
const online = useOnline()
const now = computed<Saving>(() => ({
  waiting: project.waiting,
  trouble: project.trouble,
  online: online.value && reachable.value,
  step: project.step,
}))
const text = computed(() => savingText(now.value))
</script>

<template>
  <button
    v-if="isAmiss(now)"
    class="amiss tiny"
    role="status"
    data-test="saving"
    :title="$t('controls.saveState.yourStepsAreKeptOn')"
    @click="project.sendNow()"
  >
    <IconWaiting aria-hidden="true" /><span>{{ text }}</span>
  </button>
  <span v-else class="saved tiny quiet" data-test="saving">{{ text }}</span>
</template>

<style scoped>
.saved,
.amiss {
  white-space: nowrap;
}
.amiss {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-width: 0;
  min-height: var(--touch);
  border: 0;
  background: none;
  color: var(--accent);
}
.amiss span {
  overflow: hidden;
  text-overflow: ellipsis;
}
.phone .saved {
  display: none;
}
/* There is no room in the bar: what is amiss stands right below it. */
.phone .amiss {
  position: absolute;
  top: 44px;
  left: 0;
  right: 0;
  z-index: 6;
  justify-content: center;
  background: rgb(31 27 35 / 92%);
  border-bottom: 1px solid var(--line);
}
</style>
