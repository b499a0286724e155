<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import IconDownload from '~icons/tabler/download'
import IconTrash from '~icons/tabler/trash'
import type { ExportOut } from '@/api/types'
import { isUnfinished, jobText } from '@/jobs/job'
import JobRow from '@/jobs/JobRow.vue'
import { useExports } from '@/stores/exports'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import { bytesLabel, wholeClock } from '@/time'

const props = defineProps<{ film: ExportOut }>()
const films = useExports()
const project = useProject()
const open = computed(() => isUnfinished(props.film.job))

/** The picture of where it is; a finished film shows one from its first third. */
const picture = computed(() => {
  const coarse = Math.floor(props.film.frame / 15) * 15
  const frame = open.value ? coarse : Math.floor(props.film.frames / 3)
  return `/api/projects/${project.id}/revisions/${props.film.revision}/frames/${frame}?long_side=160`
})
const text = computed(() => {
  const { job, done, frames, bytes, seconds } = props.film
  if (job.state === 'done') {
    return `${bytesLabel(bytes)}${seconds === null ? '' : t('send.filmRow.madeIn', { time: wholeClock(seconds) })}`
  }
  if (job.state !== 'holding') return jobText(job)
  const left =
    job.left === null ? '' : t('send.filmRow.left', { time: wholeClock(Math.ceil(job.left)) })
  return t('send.filmRow.frameOf', { done, frames, left })
})
const NAMES = {
  mp4: 'MP4',
  webm: 'WebM',
  hevc10: t('send.filmRow.mp410Bit'),
  av1: t('send.filmRow.webm10Bit'),
}
const formatName = (format: keyof typeof NAMES | undefined) => NAMES[format ?? 'mp4']
const facts = computed(() => {
  const { settings, width, height } = props.film
  return `${formatName(settings.format)} · ${width} × ${height}`
})
</script>

<template>
  <li class="film" :data-film="film.job.state">
    <JobRow
      :job="film.job"
      :title="film.title"
      :facts="facts"
      :picture="picture"
      :text="text"
      @cancel="films.cancel(film)"
      @again="films.again(film)"
    >
      <a
        v-if="film.job.state === 'done'"
        class="btn btn-primary"
        :href="`/api/exports/${film.id}/file`"
        :download="film.filename"
        data-test="download"
        :aria-label="$t('send.filmRow.download', { filename: film.filename })"
      >
        <IconDownload aria-hidden="true" />
      </a>
      <BButton
        v-if="!open"
        variant="secondary"
        :aria-label="$t('send.filmRow.deleteThisFilm')"
        @click="films.remove(film.id)"
      >
        <IconTrash aria-hidden="true" />
      </BButton>
    </JobRow>
  </li>
</template>

<style scoped>
.film {
  background: var(--raised);
  border-radius: 12px 12px 3px 12px;
  padding: 8px;
}
</style>
