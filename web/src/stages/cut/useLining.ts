import { computed, onBeforeUnmount, ref, shallowRef } from 'vue'
import { client, need, type Schemas } from '@/api/client'
import type { MulticamClip } from '@/api/types'
import { isUnfinished } from '@/jobs/job'
import { useAngles } from '@/stores/angles'
import { useJobs } from '@/stores/jobs'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import { filesOf } from './files'

export type Way = NonNullable<Schemas['Unplaced']['way']>

export const WAY_NAMES: Record<Way, string> = {
  auto: t('cut.lineUp.ways.auto'),
  sound: t('cut.lineUp.ways.sound'),
  clap: t('cut.lineUp.ways.clap'),
  marker: t('cut.lineUp.ways.marker'),
  timecode: t('cut.lineUp.ways.timecode'),
  clock: t('cut.lineUp.ways.clock'),
  hand: t('cut.lineUp.ways.hand'),
}

/** Lining up: asked for, watched while it is done, and laid as one step; what was found stays known. */
export function useLining(clip: () => MulticamClip) {
  const project = useProject()
  const angles = useAngles()
  const notes = useNotes()
  const jobs = useJobs()
  const job = shallowRef<Schemas['JobOut'] | null>(null)
  /** By which way each angle is lined up; what is not said is tried by itself. */
  const ways = ref<Record<number, Way>>({})
  let scene = ''

  const busy = computed(() => Boolean(job.value && isUnfinished(job.value)))
  jobs.onChange(['line_up'], look)
  onBeforeUnmount(() => jobs.setBusy('lining', false))

  async function start(first: number) {
    const files = filesOf(clip()).map(({ angle, file, media, at, marker }) => ({
      angle,
      file,
      take: media,
      at,
      marker,
      way: ways.value[angle] ?? ('auto' as const),
    }))
    scene = clip().scene ?? ''
    const stays = files.findIndex(({ angle }) => angle === first)
    try {
      const asked = client.POST('/api/linings', { body: { files, first: Math.max(0, stays) } })
      const told = await need(asked)
      job.value = told.job
      jobs.setBusy('lining', true)
      await look()
    } catch (error) {
      notes.problem(error)
    }
  }

  async function look() {
    const id = job.value?.id
    if (!id || !busy.value) return
    const told = await need(client.GET('/api/linings/{id}', { params: { path: { id } } }))
    if (job.value?.id !== id || !busy.value) return
    job.value = told.job
    if (isUnfinished(told.job)) return
    jobs.setBusy('lining', false)
    if (told.job.state === 'failed') notes.told(told.job.problem?.message ?? '')
    if (told.job.state === 'done') await lay(told.found)
  }

  async function lay(found: Schemas['Found'][]) {
    if (clip().scene !== scene) return
    angles.found = { ...angles.found, [scene]: found }
    const places = found.flatMap(({ angle, file, at, way }) =>
      at === null || at === undefined || way === 'hand' ? [] : [{ angle, file, at }],
    )
    const lost = found.length - found.filter(({ at }) => at !== null).length
    const moved = places.filter((one) => {
      const now = filesOf(clip()).find(
        ({ angle, file }) => one.angle === angle && one.file === file,
      )
      return now && now.at !== one.at
    })
    if (moved.length) await project.edit({ kind: 'line_up', clip: clip().id ?? '', places })
    notes.told(
      lost
        ? t('cut.lineUp.someDidNot', { lost }, lost)
        : t('cut.lineUp.allDid', { n: found.length }),
    )
  }

  const cancel = () => job.value && jobs.act(job.value.id, 'cancel')
  return { job, busy, ways, start, cancel }
}
