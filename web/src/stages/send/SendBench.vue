<script setup lang="ts">
/** Send: where files go, how each is made, what is to be mended before, and what was made. */
import { computed, watch } from 'vue'
import BenchPair from '@/controls/BenchPair.vue'
import { useExports } from '@/stores/exports'
import { useKit } from '@/stores/kit'
import { useNotes } from '@/stores/notes'
import { useSending, type SendPart } from '@/stores/sending'
import { t } from '@/texts'
import CaptionsPart from './CaptionsPart.vue'
import CheckPart from './CheckPart.vue'
import FeedPart from './FeedPart.vue'
import FilePart from './FilePart.vue'
import FilmList from './FilmList.vue'
import HandOverPart from './HandOverPart.vue'
import WhereTo from './WhereTo.vue'
import { useChecks } from './useChecks'
import { useEstimates } from './useEstimates'

const sending = useSending()
const films = useExports()
const kit = useKit()
const notes = useNotes()
const estimates = useEstimates()
const checks = useChecks(() => estimates.of(sending.settings)?.bytes ?? null)
kit.open().catch((error: unknown) => notes.problem(error))

const parts = computed<{ id: SendPart; name: string; test: string }[]>(() => [
  { id: 'file', name: t('send.sendBench.file'), test: 'send-file' },
  { id: 'captions', name: t('send.sendBench.captions'), test: 'send-captions' },
  {
    id: 'check',
    name: checks.count.value
      ? t('send.sendBench.checkOf', { count: checks.count.value })
      : t('send.sendBench.check'),
    test: 'send-check',
  },
  { id: 'films', name: t('send.sendBench.films'), test: 'send-films' },
  { id: 'feed', name: t('send.sendBench.feed'), test: 'send-feed' },
  { id: 'hand-over', name: t('send.sendBench.handOver'), test: 'send-hand-over' },
])
// What is being made is what one looks at.
watch(
  () => films.films.length,
  (now, before) => {
    if (now > before && before > 0) sending.part = 'films'
  },
)
</script>

<template>
  <BenchPair
    :label="$t('send.sendBench.send')"
    :left="$t('send.sendBench.whereTo')"
    left-first
    :parts="parts"
    :part="sending.part"
    filled
    @take="sending.part = $event"
  >
    <template #left>
      <WhereTo :estimates="estimates" @begun="sending.part = 'films'" />
    </template>
    <FilePart v-if="sending.part === 'file'" />
    <CaptionsPart v-else-if="sending.part === 'captions'" />
    <CheckPart v-else-if="sending.part === 'check'" :checks="checks" />
    <FilmList v-else-if="sending.part === 'films'" />
    <FeedPart v-else-if="sending.part === 'feed'" />
    <HandOverPart v-else />
  </BenchPair>
</template>
