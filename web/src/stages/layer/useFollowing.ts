import { computed, onBeforeUnmount, shallowRef, watch } from 'vue'
import { client, need, type Schemas } from '@/api/client'
import { TICKS_PER_SECOND, type VideoClip } from '@/api/types'
import { isUnfinished } from '@/jobs/job'
import { boxAround } from '@/motion/quads'
import { useJobs } from '@/stores/jobs'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { takeOf, useTracking, wantedOf, type Change, type Tracked } from '@/stores/tracking'
import { t } from '@/texts'
import { useTracked } from './useTracked'

/** Seconds that are followed before and after what a clip shows, so that it can be trimmed. */
const HANDLES = 1
/** How large a thing is at first, in heights of the picture. */
const FIRST: Record<Change, [number, number]> = {
  moves: [0.035, 0.035],
  turns: [0.08, 0.08],
  leans: [0.12, 0.09],
}

/** Following a thing through the video in hand: begun, put right, found. */
export function useFollowing(clip: () => VideoClip) {
  const project = useProject()
  const store = useTracking()
  const notes = useNotes()
  const jobs = useJobs()
  const job = shallowRef<Schemas['JobOut'] | null>(null)
  let doing: { media: string; wanted: Tracked; land: () => Promise<unknown> } | null = null

  const { trackers, tracker, found, tick, sourceAt } = useTracked(clip)
  const busy = computed(() => Boolean(job.value && isUnfinished(job.value)))

  function begin(change: Change) {
    store.draft = { of: '', change, at: tick.value, quad: boxAround([0, 0], ...FIRST[change]) }
  }

  /** What is looked for: through all that the clip shows, and a little more. */
  function newTracked(): Tracked | null {
    const draft = store.draft
    if (!draft) return null
    const start = clip().start ?? 0
    const ends = [sourceAt(start), sourceAt(start + clip().length), draft.at]
    const more = HANDLES * TICKS_PER_SECOND
    return {
      change: draft.change,
      views: [{ at: draft.at, corners: draft.quad }],
      first: Math.max(0, Math.min(...ends) - more),
      last: Math.min(clip().source_length, Math.max(...ends) + more),
    }
  }

  async function follow() {
    const wanted = newTracked()
    if (!wanted) return
    const item = {
      ...wanted,
      name: t('layer.followPart.tracker', { n: trackers.value.length + 1 }),
    }
    await ask(wanted, async () => {
      await project.edit({
        kind: 'add_item',
        clips: [clip().id ?? ''],
        list: 'trackers',
        item,
      })
      store.taken = trackers.value.at(-1)?.id ?? ''
      store.draft = null
    })
  }

  /** Where it really is now: kept, and followed anew from there. */
  async function putRight() {
    const [draft, one] = [store.draft, tracker.value]
    if (!draft || !one) return
    const view = { at: draft.at, corners: draft.quad }
    const views = [...one.views.filter(({ at }) => at !== draft.at), view]
    const wanted = {
      ...wantedOf(one),
      views,
      first: Math.min(one.first, draft.at),
      last: Math.max(one.last, draft.at),
    }
    await ask(wanted, async () => {
      const { first, last } = wanted
      const path = `trackers/${one.id}`
      await project.edit({
        kind: 'adjust',
        clips: [clip().id ?? ''],
        values: { [`${path}/first`]: first, [`${path}/last`]: last, [`${path}/views`]: views },
      })
      store.draft = null
    })
  }

  async function ask(wanted: Tracked, land: () => Promise<unknown>) {
    doing = { media: clip().media, wanted, land }
    await tell(() =>
      client.POST('/api/takes/{id}/tracks', {
        params: { path: takeOf(clip().media) },
        body: wanted,
      }),
    )
  }

  jobs.onChange(['track'], look)
  async function look() {
    const id = job.value?.id
    if (!id || !busy.value) return
    await tell(() => client.GET('/api/tracks/{id}', { params: { path: { id } } }))
  }

  async function tell(asked: () => Parameters<typeof need<Schemas['TrackOut']>>[0]) {
    const mine = doing
    try {
      const told = await need<Schemas['TrackOut']>(asked())
      if (doing !== mine || !mine) return
      job.value = told.job ?? null
      jobs.setBusy('tracking', busy.value)
      if (told.found) {
        store.keep(mine.media, mine.wanted, told.found)
        doing = null
        job.value = null
        jobs.setBusy('tracking', false)
        await mine.land()
      } else if (!busy.value) {
        doing = null
        if (told.job?.state === 'failed') notes.told(told.job.problem?.message ?? '')
      }
    } catch (error) {
      notes.problem(error)
    }
  }

  // What was found for trackers that are there is fetched when one comes in hand.
  watch(
    tracker,
    async (one) => {
      if (!one || found.value || doing) return
      const media = clip().media
      const path = takeOf(clip().media)
      try {
        const told = await need(
          client.POST('/api/takes/{id}/tracks', { params: { path }, body: wantedOf(one) }),
        )
        if (told.found) store.keep(media, one, told.found)
        else {
          doing = { media, wanted: wantedOf(one), land: async () => {} }
          job.value = told.job ?? null
          jobs.setBusy('tracking', busy.value)
        }
      } catch (error) {
        notes.problem(error)
      }
    },
    { immediate: true },
  )
  onBeforeUnmount(() => jobs.setBusy('tracking', false))

  function cancel() {
    if (job.value) jobs.cancel(job.value.id)
    doing = null
    job.value = null
    jobs.setBusy('tracking', false)
  }

  return { job, busy, begin, follow, putRight, cancel }
}
