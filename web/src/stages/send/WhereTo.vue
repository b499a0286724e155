<script setup lang="ts">
/** What is to be made: for which destinations, and what it will weigh and take. */
import { BButton } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import type { ExportSettings } from '@/api/types'
import { useScreen } from '@/player/inject'
import { useExports } from '@/stores/exports'
import { useProject } from '@/stores/project'
import { useSending } from '@/stores/sending'
import { t } from '@/texts'
import { bytesLabel, lengthLabel, tickOf, wholeClock } from '@/time'
import DestinationCards from './DestinationCards.vue'
import type { useEstimates } from './useEstimates'

const props = defineProps<{ estimates: ReturnType<typeof useEstimates> }>()
const emit = defineEmits<{ begun: [] }>()
const films = useExports()
const project = useProject()
const sending = useSending()
const { player } = useScreen()
const busy = ref(false)

const what = computed(() => {
  if (!project.length) return t('send.whereTo.theTimelineIsEmptyPlace')
  const { first, last } = sending.range
  const length = lengthLabel(Math.min(last || project.length, project.length) - first)
  return first || last
    ? t('send.whereTo.aRange', { length })
    : t('send.whereTo.allOfTheTimeline', { length })
})
const cost = computed(() => {
  const all = props.estimates.all.value
  if (!all) {
    const share = Math.floor(props.estimates.share.value * 100)
    return project.length ? t('send.whereTo.beingWeighed', { share }) : ''
  }
  const time = wholeClock(Math.ceil(all.seconds))
  return t('send.whereTo.about', { bytes: bytesLabel(all.bytes), time })
})

/** A still shows what is on the screen. */
function asItIs(settings: ExportSettings): ExportSettings {
  const still = sending.formatOf(settings)?.kind === 'still'
  const first = Math.min(tickOf(player.frame.value, project.rate), project.length - 1)
  return still ? { ...settings, first, last: 0 } : settings
}

async function start() {
  busy.value = true
  await films.start(sending.wanted.map(asItIs), sending.asTake)
  busy.value = false
  emit('begun')
}
</script>

<template>
  <section class="where tray-group" :aria-label="$t('send.sendBench.whereTo')">
    <DestinationCards :estimates="estimates" />
    <div class="line go tray-keep">
      <div>
        <div class="fw-semibold" data-test="cost" aria-live="polite">{{ cost }}</div>
        <div class="small quiet">{{ what }}</div>
      </div>
      <BButton
        variant="primary"
        :disabled="busy || !project.length || !sending.wanted.length"
        data-test="export"
        @click="start"
      >
        {{ $t('send.whereTo.make', {}, Math.max(1, sending.wanted.length)) }}
      </BButton>
    </div>
  </section>
</template>

<style scoped>
.where {
  display: flex;
  flex-direction: column;
  gap: 8px;
  min-height: 0;
  height: 100%;
}
.line {
  display: flex;
  align-items: center;
  gap: 12px;
}
.go {
  justify-content: space-between;
  margin-top: auto;
}
.go .btn {
  flex: none;
}
</style>
