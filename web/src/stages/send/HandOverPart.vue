<script setup lang="ts">
/** The timeline for other programs, from and to; the whole project as one file. */
import { BButton } from 'bootstrap-vue-next'
import { ref } from 'vue'
import { upload, type Schemas } from '@/api/client'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import TrayItem from '@/tray/TrayItem.vue'
import ExchangeDialog from './ExchangeDialog.vue'
import PackField from './PackField.vue'
import TakeOverDialog from './TakeOverDialog.vue'

const project = useProject()
const notes = useNotes()
const file = ref<HTMLInputElement | null>(null)
const taken = ref<Schemas['TakenOver'] | null>(null)
const reading = ref(false)
const exchanging = ref(false)

async function open(event: Event) {
  const input = event.target as HTMLInputElement
  const [given] = input.files ?? []
  input.value = ''
  if (!given) return
  reading.value = true
  try {
    taken.value = await upload<Schemas['TakenOver']>(`/api/projects/${project.id}/timeline`, given)
  } catch (error) {
    notes.problem(error)
  }
  reading.value = false
}
</script>

<template>
  <section class="hand-over" :aria-label="$t('send.sendBench.handOver')">
    <TrayItem :name="$t('send.handOver.timeline')">
      <div class="block">
        <strong>{{ $t('send.handOver.timeline') }}</strong>
        <p class="small soft mb-0">{{ $t('send.handOver.timelineHelp') }}</p>
        <div class="line">
          <a
            class="btn btn-secondary btn-sm"
            :href="`/api/projects/${project.id}/timeline`"
            download
            data-test="timeline-out"
          >
            {{ $t('send.handOver.save') }}
          </a>
          <BButton
            variant="secondary"
            size="sm"
            data-test="timeline-in"
            :disabled="reading"
            @click="file?.click()"
          >
            {{ $t('send.handOver.takeOver') }}
          </BButton>
          <input
            ref="file"
            type="file"
            hidden
            accept=".otio,application/json"
            :aria-label="$t('send.handOver.takeOver')"
            data-test="timeline-file"
            @change="open"
          />
        </div>
      </div>
    </TrayItem>
    <TrayItem :name="$t('send.handOver.project')">
      <div class="block">
        <strong>{{ $t('send.handOver.project') }}</strong>
        <p class="small soft mb-0">{{ $t('send.handOver.projectHelp') }}</p>
        <PackField />
      </div>
    </TrayItem>
    <TrayItem :name="$t('send.handOver.template')">
      <div class="block">
        <strong>{{ $t('send.handOver.template') }}</strong>
        <p class="small soft mb-0">{{ $t('send.handOver.templateHelp') }}</p>
        <BButton variant="secondary" size="sm" data-test="exchange" @click="exchanging = true">
          {{ $t('send.handOver.exchange') }}
        </BButton>
      </div>
    </TrayItem>
    <ExchangeDialog v-if="exchanging" @closed="exchanging = false" />
    <TakeOverDialog v-if="taken" :taken="taken" @closed="taken = null" />
  </section>
</template>

<style scoped>
.hand-over {
  display: flex;
  flex-direction: column;
  gap: 16px;
  height: 100%;
  overflow-y: auto;
}
.block {
  display: grid;
  gap: 6px;
  justify-items: start;
}
.phone .block strong {
  display: none;
}
.phone .block p {
  order: 1;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
