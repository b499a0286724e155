<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import IconDownload from '~icons/tabler/download'
import IconFirst from '~icons/tabler/arrow-bar-to-up'
import IconLibrary from '~icons/tabler/folder-plus'
import IconPause from '~icons/tabler/player-pause'
import IconPlay from '~icons/tabler/player-play'
import IconTrash from '~icons/tabler/trash'
import type { ExportOut } from '@/api/types'
import { isUnfinished, jobText } from '@/jobs/job'
import JobRow from '@/jobs/JobRow.vue'
import { useExports } from '@/stores/exports'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import { bytesLabel, wholeClock } from '@/time'

const props = defineProps<{
  film: ExportOut
  /** Whether others are made before it. */
  later?: boolean
}>()
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
  if (job.paused) return `${t('send.filmRow.paused')} · ${Math.floor(job.share * 100)} %`
  if (job.state !== 'holding') return jobText(job)
  const left =
    job.left === null ? '' : t('send.filmRow.left', { time: wholeClock(Math.ceil(job.left)) })
  return t('send.filmRow.frameOf', { done, frames, left })
})
const facts = computed(() => {
  const { kind, label, width, height } = props.film
  return kind === 'sound' ? label : `${label} · ${width} × ${height}`
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
      <template v-if="open">
        <BButton
          v-if="film.job.paused"
          variant="secondary"
          :aria-label="$t('send.filmRow.goOn', { title: film.title })"
          data-test="go-on"
          @click="films.turn(film, 'go-on')"
        >
          <IconPlay aria-hidden="true" />
        </BButton>
        <BButton
          v-else
          variant="secondary"
          :aria-label="$t('send.filmRow.pause', { title: film.title })"
          data-test="pause-film"
          @click="films.turn(film, 'pause')"
        >
          <IconPause aria-hidden="true" />
        </BButton>
        <BButton
          v-if="later"
          variant="secondary"
          :aria-label="$t('send.filmRow.first', { title: film.title })"
          data-test="film-first"
          @click="films.turn(film, 'first')"
        >
          <IconFirst aria-hidden="true" />
        </BButton>
      </template>
      <BButton
        v-if="film.job.state === 'done' && film.kind !== 'pictures'"
        variant="secondary"
        :aria-label="$t('send.filmRow.toLibrary')"
        :title="$t('send.filmRow.toLibrary')"
        data-test="to-library"
        @click="films.toLibrary(film)"
      >
        <IconLibrary aria-hidden="true" />
      </BButton>
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
