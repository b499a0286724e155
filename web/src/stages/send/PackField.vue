<script setup lang="ts">
/** Packs the project, says how far that is, and lets it be fetched. */
import { BButton, BProgress, BProgressBar } from 'bootstrap-vue-next'
import { computed, onBeforeUnmount, ref } from 'vue'
import { client, need, type Schemas } from '@/api/client'
import SwitchField from '@/controls/SwitchField.vue'
import { isUnfinished } from '@/jobs/job'
import { useJobs } from '@/stores/jobs'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { bytesLabel } from '@/time'

const project = useProject()
const notes = useNotes()
const jobs = useJobs()
const originals = ref(true)
const packed = ref<Schemas['PackedOut'] | null>(null)
const working = computed(() => packed.value !== null && isUnfinished(packed.value.job))
const params = () => ({ path: { id: project.id } })

async function keep(asked: Promise<Schemas['PackedOut'] | null>) {
  try {
    packed.value = await asked
  } catch (error) {
    notes.problem(error)
  }
  jobs.setBusy('pack', working.value)
}
const look = () => keep(need(client.GET('/api/projects/{id}/archive', { params: params() })))
const pack = () =>
  keep(
    need(
      client.POST('/api/projects/{id}/archive', {
        params: params(),
        body: { originals: originals.value },
      }),
    ),
  )
async function cancel() {
  if (packed.value) await jobs.act(packed.value.job.id, 'cancel')
  await look()
}
jobs.onChange(['pack'], look)
void look()
onBeforeUnmount(() => jobs.setBusy('pack', false))
</script>

<template>
  <SwitchField v-model:on="originals" data-test="pack-originals">
    {{ $t('send.handOver.originals') }}
  </SwitchField>
  <div class="line">
    <BButton variant="secondary" size="sm" data-test="pack" :disabled="working" @click="pack">
      {{ $t('send.handOver.pack') }}
    </BButton>
    <template v-if="working">
      <BProgress :max="1" class="meter">
        <BProgressBar
          :value="packed?.job.share ?? 0"
          variant="primary"
          :aria-label="$t('send.handOver.packing')"
        />
      </BProgress>
      <BButton variant="secondary" size="sm" data-test="pack-cancel" @click="cancel">
        {{ $t('words.cancel') }}
      </BButton>
    </template>
    <template v-else-if="packed?.bytes">
      <a
        class="btn btn-primary btn-sm"
        :href="`/api/projects/${project.id}/archive/file`"
        download
        data-test="archive-out"
      >
        {{ $t('send.handOver.download') }}
      </a>
      <span class="small soft">
        {{ $t('send.handOver.packed', { size: bytesLabel(packed.bytes) }) }}
      </span>
    </template>
    <span v-else-if="packed?.job.problem" class="small">{{ packed.job.problem.message }}</span>
  </div>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.meter {
  width: 120px;
}
</style>
