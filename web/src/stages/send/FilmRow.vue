<script setup lang="ts">
import { computed, ref } from 'vue'
import IconDownload from '~icons/tabler/download'
import IconFirst from '~icons/tabler/arrow-bar-to-up'
import IconLibrary from '~icons/tabler/folder-plus'
import IconPause from '~icons/tabler/player-pause'
import IconPlay from '~icons/tabler/player-play'
import IconPost from '~icons/tabler/send'
import IconTrash from '~icons/tabler/trash'
import type { ExportOut } from '@/api/types'
import { isUnfinished, jobText } from '@/jobs/job'
import JobRow from '@/jobs/JobRow.vue'
import { useExports } from '@/stores/exports'
import { useNotes } from '@/stores/notes'
import { usePosts } from '@/stores/posts'
import { useProject } from '@/stores/project'
import { useSending } from '@/stores/sending'
import { t } from '@/texts'
import { bytesLabel, wholeClock } from '@/time'
import DeedButtons from './DeedButtons.vue'
import PostDialog from './PostDialog.vue'

const props = defineProps<{
  film: ExportOut
  /** Whether others are made before it. */
  later?: boolean
}>()
const films = useExports()
const project = useProject()
const posts = usePosts()
const notes = useNotes()
const sending = useSending()
const open = computed(() => isUnfinished(props.film.job))
const wording = ref(false)

/** Words for the feed; whoever is not known there is led to its door. */
function post() {
  if (posts.connected) wording.value = true
  else {
    sending.part = 'feed'
    notes.told(t('send.filmRow.connectFirst'))
  }
}

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

/** What can be done with it as it is. */
const deeds = computed(() => {
  const { film } = props
  const title = { title: film.title }
  const toFeed = {
    test: 'post-film',
    name: t('send.filmRow.post', title),
    icon: IconPost,
    act: post,
  }
  if (!open.value) {
    const library = {
      test: 'to-library',
      name: t('send.filmRow.toLibrary'),
      icon: IconLibrary,
      act: () => films.toLibrary(film),
    }
    const remove = {
      test: 'film-delete',
      name: t('send.filmRow.deleteThisFilm'),
      icon: IconTrash,
      act: () => films.remove(film.id),
    }
    if (film.job.state !== 'done' || film.kind === 'pictures') return [remove]
    return film.kind === 'film' ? [toFeed, library, remove] : [library, remove]
  }
  const goOn = {
    test: 'go-on',
    name: t('send.filmRow.goOn', title),
    icon: IconPlay,
    act: () => films.act(film, 'go-on'),
  }
  const pause = {
    test: 'pause-film',
    name: t('send.filmRow.pause', title),
    icon: IconPause,
    act: () => films.act(film, 'pause'),
  }
  const first = {
    test: 'film-first',
    name: t('send.filmRow.first', title),
    icon: IconFirst,
    act: () => films.act(film, 'first'),
  }
  const soon = film.kind === 'film' ? [toFeed] : []
  return [...soon, film.job.paused ? goOn : pause, ...(props.later ? [first] : [])]
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
      @cancel="films.act(film, 'cancel')"
      @again="films.act(film, 'again')"
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
      <DeedButtons :deeds="deeds" />
    </JobRow>
    <PostDialog v-model="wording" :film="film" @begun="sending.part = 'feed'" />
  </li>
</template>

<style scoped>
.film {
  background: var(--raised);
  border-radius: 12px 12px 3px 12px;
  padding: 8px;
}
</style>
