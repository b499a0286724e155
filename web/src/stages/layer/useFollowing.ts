import { computed, ref, shallowRef } from 'vue'
import type { VideoClip } from '@/api/types'
import { outerTick } from '@/motion/inside'
import { boxAround, spotted, type Quad, type Spot } from '@/motion/quads'
import { reached } from '@/motion/reached'
import { useTracked } from '@/picture/useTracked'
import { useProject } from '@/stores/project'
import { useTracking, wantedOf, type Change, type Tracked } from '@/stores/tracking'
import { t } from '@/texts'
import { frameOf } from '@/time'

/** How large a thing is at first, in heights of the picture. */
const FIRST: Record<Change, [number, number]> = {
  moves: [0.035, 0.035],
  turns: [0.08, 0.08],
  leans: [0.12, 0.09],
}

/** Spots that it takes to tell how a thing leans, and to tell anything of several. */
export const LEAST_LEANING = 4
export const LEAST_SPOTS = 2
export const MOST_SPOTS = 8

/** Following a thing through the video in hand: begun, put right, found. */
export function useFollowing(clip: () => VideoClip) {
  const project = useProject()
  const store = useTracking()
  const { trackers, tick, through, keep, foundOf, seenOf, momentOf } = useTracked(clip)

  const tracker = computed(
    () => trackers.value.find(({ id }) => id === store.taken) ?? trackers.value[0] ?? null,
  )
  const found = computed(() => foundOf(tracker.value))
  const now = computed(() => seenOf(tracker.value, tick.value))
  /** Where what goes along with it lies. */
  const along = computed(() => momentOf(tracker.value, tick.value))
  const frameAt = (source: number) => frameOf(outerTick(clip(), source), project.rate)

  /** What is being looked for: what was asked for last, or what is missing of the tracker in hand. */
  const asked = shallowRef<Tracked | null>(null)
  const sought = computed(() => asked.value ?? tracker.value)
  const job = computed(() => sought.value && store.jobOf(clip().media, sought.value))

  /** Where something new is followed from where it was seen. */
  const way = ref<'both' | 'on' | 'back'>('both')

  function begin(change: Change) {
    store.draft = { of: '', change, at: tick.value, quad: boxAround([0, 0], ...FIRST[change]) }
  }

  /** Several spots of a thing, to be tapped one after the other. */
  function beginSpots() {
    begin('turns')
    laySpots([])
  }
  function laySpots(spots: Spot[], change: Change = store.draft?.change ?? 'turns') {
    if (!store.draft) return
    const told = spots.length < LEAST_LEANING ? 'turns' : change
    const quad = spots.length ? spotted(spots, told === 'leans').quad : store.draft.quad
    store.draft = { ...store.draft, spots, change: told, quad, at: tick.value }
  }

  /** It is here: to be followed from here, or put right. */
  function lay(quad: Quad) {
    const [of, change] = store.draft
      ? [store.draft.of, store.draft.change]
      : [tracker.value?.id ?? '', tracker.value?.change]
    if (change) store.draft = { of, change, at: tick.value, quad }
  }

  /** What is looked for: the thing that is to be followed. */
  function newTracked(): Tracked | null {
    const draft = store.draft
    if (!draft) return null
    const shares = draft.spots && spotted(draft.spots, draft.change === 'leans').shares
    const whole = through(draft.change, draft.at, draft.quad, shares)
    return {
      ...whole,
      first: way.value === 'on' ? draft.at : whole.first,
      last: way.value === 'back' ? draft.at : whole.last,
    }
  }

  async function follow() {
    const wanted = newTracked()
    const known = wanted && (await looked(wanted))
    if (!known) return
    store.taken = await keep(known, t('layer.followPart.tracker', { n: trackers.value.length + 1 }))
    store.draft = null
  }

  /** Where it really is now: kept, and followed anew from there. */
  async function putRight() {
    const [draft, one] = [store.draft, tracker.value]
    if (!draft || !one) return
    const view = { at: draft.at, corners: draft.quad }
    const views = [...one.views.filter(({ at }) => at !== draft.at), view]
    const [low, high] = [Math.min(one.first, draft.at), Math.max(one.last, draft.at)]
    const known = await looked({ ...wantedOf(one), views, first: low, last: high })
    if (!known) return
    const { first, last } = known
    const path = `trackers/${one.id}`
    await project.edit({
      kind: 'adjust',
      clips: [clip().id ?? ''],
      values: { [`${path}/first`]: first, [`${path}/last`]: last, [`${path}/views`]: views },
    })
    store.draft = null
  }

  /** What was found of it, in the clip that is in hand still: all, or as far as it was to be kept. */
  async function looked(wanted: Tracked): Promise<Tracked | null> {
    const id = clip().id
    asked.value = wanted
    const what = await store.ask(clip().media, wanted)
    if (asked.value === wanted) asked.value = null
    if (clip().id !== id) return null
    if (what) return wanted
    const part = kept.value
    kept.value = null
    return part && looked(part)
  }

  /** Part of what was looked for, when that was stopped on the way. */
  const kept = shallowRef<Tracked | null>(null)
  const stoppable = computed(() => Boolean(asked.value && (job.value?.share ?? 0) > 0))
  /** Stop here; what was found so far is kept. */
  function keepThisFar() {
    if (!asked.value || !job.value) return
    kept.value = reached(asked.value, job.value.share)
    store.cancel(clip().media, asked.value)
  }

  function cancel() {
    kept.value = null
    if (sought.value) store.cancel(clip().media, sought.value)
  }
  return {
    ...{ trackers, tracker, found, now, along, tick, frameAt, job, stoppable, way },
    ...{ begin, beginSpots, laySpots, lay, follow, putRight, keepThisFar, cancel },
  }
}

export type Following = ReturnType<typeof useFollowing>
