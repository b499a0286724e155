<script setup lang="ts">
/** All named steps of the project; any of them can be gone back to, and no branch is lost. */
import { BOffcanvas } from 'bootstrap-vue-next'
import { computed, ref, watch } from 'vue'
import IconCompare from '~icons/tabler/arrows-split-2'
import { client, need, type Schemas } from '@/api/client'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { useViewing } from '@/stores/viewing'
import { t } from '@/texts'
import { timeLabel } from '@/texts/dates'

const open = defineModel<boolean>({ required: true })
const project = useProject()
const notes = useNotes()
const viewing = useViewing()
const steps = ref<Schemas['StepOut'][]>([])

watch(
  [open, () => project.revision],
  async ([shown]) => {
    if (!shown || !project.id) return
    try {
      const path = { id: project.id }
      steps.value = await need(client.GET('/api/projects/{id}/history', { params: { path } }))
    } catch (error) {
      notes.problem(error)
    }
  },
  { immediate: true },
)

/** Newest first; steps of other branches stand where they were made. */
const shown = computed(() => [...steps.value].reverse())
const here = computed(() => steps.value.find((step) => step.revision === project.revision))

function compare({ revision, number }: Schemas['StepOut']) {
  viewing.compared = { revision, number }
  open.value = false
}

function state(step: Schemas['StepOut']): string {
  if (step.revision === project.revision) return t('views.historyDrawer.youAreHere')
  if (!step.on_path) return t('views.historyDrawer.anotherBranch')
  return step.number > (here.value?.number ?? 0) ? t('views.historyDrawer.undone') : ''
}
</script>

<template>
  <BOffcanvas
    v-model="open"
    placement="end"
    :title="$t('views.historyDrawer.history')"
    class="history"
  >
    <p class="small quiet">
      {{ $t('views.historyDrawer.tapAStepToGo') }}
    </p>
    <ol reversed>
      <li v-for="step in shown" :key="step.revision">
        <button
          class="go"
          type="button"
          :class="{
            here: step.revision === project.revision,
            aside: !step.on_path,
            ahead: state(step) === 'undone',
          }"
          :aria-current="step.revision === project.revision ? 'step' : undefined"
          :data-test="`step-${step.revision}`"
          @click="project.goTo(step.revision)"
        >
          <span class="number tiny">{{ step.number }}</span>
          <span class="label">{{ step.label }}</span>
          <span class="tiny quiet">{{ state(step) || timeLabel(step.made_at) }}</span>
        </button>
        <button
          v-if="step.revision !== project.revision"
          class="btn btn-bare"
          :aria-label="$t('views.historyDrawer.compareWithNowOnThe', { label: step.label })"
          :title="$t('views.historyDrawer.compareWithNow')"
          :data-test="`compare-${step.revision}`"
          @click="compare(step)"
        >
          <IconCompare aria-hidden="true" />
        </button>
      </li>
    </ol>
  </BOffcanvas>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
}
.go {
  display: grid;
  grid-template-columns: 34px 1fr auto;
  align-items: center;
  gap: 8px;
  width: 100%;
  min-height: var(--touch);
  padding: 4px 8px;
  border: 0;
  border-left: 3px solid transparent;
  background: none;
  color: var(--text);
  text-align: left;
}
.number {
  color: var(--quiet);
  text-align: right;
}
.here {
  border-left-color: var(--accent);
  background: var(--raised);
  border-radius: 4px 10px 2px 4px;
  font-weight: 600;
}
.ahead .label {
  color: var(--quiet);
}
.aside {
  margin-left: 18px;
  border-left: 3px dotted #5b5263;
  width: calc(100% - 18px);
}
.aside .label {
  color: var(--quiet);
  font-style: italic;
}
</style>
