<script setup lang="ts">
import { BButton, BProgress, BProgressBar } from 'bootstrap-vue-next'
import { computed } from 'vue'
import IconDownload from '~icons/tabler/download'
import IconTrash from '~icons/tabler/trash'
import type { ExportOut } from '@/api/types'
import { isUnfinished, useExports } from '@/stores/exports'
import { useProject } from '@/stores/project'
import { bytesLabel, wholeClock } from '@/time'

const props = defineProps<{ film: ExportOut }>()
const films = useExports()
const project = useProject()

/** The picture of where it is; a finished film shows one from its first third. */
const picture = computed(() => {
  const coarse = Math.floor(props.film.frame / 15) * 15
  const frame = isUnfinished(props.film) ? coarse : Math.floor(props.film.frames / 3)
  return `/api/projects/${project.id}/revisions/${props.film.revision}/frames/${frame}?long_side=160`
})
const state = computed(() => {
  const { film } = props
  const left = film.left === null ? '' : ` · ${wholeClock(Math.ceil(film.left))} left`
  const names: Record<string, string> = {
    waiting: 'waits for the worker',
    working: `frame ${film.done} of ${film.frames}${left}`,
    joining: 'putting it together',
    done: `${bytesLabel(film.bytes)}${film.seconds === null ? '' : ` · made in ${wholeClock(film.seconds)}`}`,
    failed: film.problem?.message ?? 'failed',
    cancelled: 'cancelled',
  }
  return names[film.state] ?? film.state
})
const NAMES = { mp4: 'MP4', webm: 'WebM', hevc10: 'MP4, 10 bit', av1: 'WebM, 10 bit' }
const formatName = (format: keyof typeof NAMES | undefined) => NAMES[format ?? 'mp4']
const facts = computed(() => {
  const { settings, width, height } = props.film
  return `${formatName(settings.format)} · ${width} × ${height}`
})
</script>

<template>
  <li class="film" :data-film="film.state">
    <img :src="picture" alt="" class="picture" />
    <div class="words">
      <div class="fw-semibold clip-text">{{ film.title }}</div>
      <div class="tiny quiet clip-text">{{ facts }}</div>
      <div class="small soft clip-text" :title="state">{{ state }}</div>
      <BProgress v-if="isUnfinished(film)" :max="film.frames">
        <BProgressBar
          :value="film.done"
          variant="primary"
          :aria-label="`${film.title}, frames made`"
        />
      </BProgress>
      <div v-if="film.state === 'failed'" class="tiny quiet">{{ film.problem?.todo }}</div>
    </div>
    <BButton v-if="isUnfinished(film)" variant="secondary" @click="films.cancel(film.id)"
      >Cancel</BButton
    >
    <template v-else>
      <a
        v-if="film.state === 'done'"
        class="btn btn-primary"
        :href="`/api/exports/${film.id}/file`"
        :download="film.filename"
        data-test="download"
        :aria-label="`Download ${film.filename}`"
      >
        <IconDownload aria-hidden="true" />
      </a>
      <BButton variant="secondary" :aria-label="`Delete this film`" @click="films.remove(film.id)">
        <IconTrash aria-hidden="true" />
      </BButton>
    </template>
  </li>
</template>

<style scoped>
.film {
  display: flex;
  align-items: center;
  gap: 10px;
  background: var(--raised);
  border-radius: 12px 12px 3px 12px;
  padding: 8px;
}
.picture {
  width: 46px;
  height: 64px;
  object-fit: cover;
  border-radius: 8px 8px 2px 8px;
  background: var(--neutral);
  flex: none;
}
.words {
  flex: 1;
  min-width: 0;
}
.film .btn {
  flex: none;
  min-width: var(--touch);
  padding: 0 10px;
}
</style>
