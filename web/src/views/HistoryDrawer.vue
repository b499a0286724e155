<script setup lang="ts">
/** All named steps of the project; any of them can be gone back to, and no branch is lost. */
import { BOffcanvas } from 'bootstrap-vue-next'
import { computed, ref, watch } from 'vue'
import { client, need, type Schemas } from '@/api/client'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'

const open = defineModel<boolean>({ required: true })
const project = useProject()
const notes = useNotes()
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

function time(step: Schemas['StepOut']): string {
  return new Date(step.made_at).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })
}
function state(step: Schemas['StepOut']): string {
  if (step.revision === project.revision) return 'you are here'
  if (!step.on_path) return 'another branch'
  return step.number > (here.value?.number ?? 0) ? 'undone' : ''
}
</script>

<template>
  <BOffcanvas v-model="open" placement="end" title="History" class="history">
    <p class="small quiet">Tap a step to go there. Going on from it keeps what you leave.</p>
    <ol reversed>
      <li v-for="step in shown" :key="step.revision">
        <button
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
          <span class="tiny quiet">{{ state(step) || time(step) }}</span>
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
button {
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
