import { computed, watch } from 'vue'
import type { Schemas } from '@/api/client'
import { TICKS_PER_SECOND, type VideoClip } from '@/api/types'
import { innerTick } from '@/motion/inside'
import type { Quad, Spot } from '@/motion/quads'
import { momentAt, type Moment } from '@/motion/tracks'
import { useScreen } from '@/player/inject'
import { useProject } from '@/stores/project'
import { useTracking, type Change, type Tracked } from '@/stores/tracking'
import { tickOf } from '@/time'

/** Seconds that are followed before and after what a clip shows, so that it can be trimmed. */
const HANDLES = 1

export type Tracker = Schemas['Tracker']

/** The tick of the file whose place counts at another: what was trimmed away stays as it is at the end. */
export const trimmedTo = (one: Tracker, at: number): number =>
  Math.max(one.begins ?? 0, Math.min(one.ends ?? Infinity, at))

/** The trackers of a video, and where what they follow is at ticks of its file. */
export function useTracked(clip: () => VideoClip | null) {
  const project = useProject()
  const store = useTracking()
  const { player } = useScreen()

  const trackers = computed(() => clip()?.trackers ?? [])
  /** The tick of the file that shows at the playhead. */
  const tick = computed(() => sourceAt(tickOf(player.shown.value, project.rate)))

  function sourceAt(outer: number): number {
    const video = clip()
    if (!video) return 0
    return Math.min(Math.max(Math.round(innerTick(video, outer)), 0), video.source_length)
  }

  /** All that the clip shows, and a little more; with some ticks of the file. */
  function span(ticks: number[]) {
    const video = clip()
    const start = video?.start ?? 0
    const ends = [sourceAt(start), sourceAt(start + (video?.length ?? 0)), ...ticks]
    const more = HANDLES * TICKS_PER_SECOND
    return {
      first: Math.max(0, Math.min(...ends) - more),
      last: Math.min(video?.source_length ?? 0, Math.max(...ends) + more),
    }
  }

  /** Something seen at a tick of the file, followed through all of that. */
  const through = (change: Change, at: number, corners: Quad, spots: Spot[] = []): Tracked => ({
    change,
    views: [{ at, corners }],
    spots,
    face: false,
    ...span([at]),
  })

  function foundOf(one: Tracker | null) {
    const media = clip()?.media
    return one && media ? store.foundOf(media, one) : null
  }

  /** Where what is followed is at a tick of the file; none if that is not known yet. */
  function seenOf(one: Tracker | null, at: number): Moment | null {
    const found = foundOf(one)
    return found && momentAt(found, one ? trimmedTo(one, at) : at)
  }

  /** Where what goes along with it lies: there, or aside of it. */
  function momentOf(one: Tracker | null, at: number): Moment | null {
    const seen = seenOf(one, at)
    const [x, y] = one?.aside ?? [0, 0]
    return seen && { ...seen, quad: seen.quad.map((spot) => [spot[0] + x, spot[1] + y]) as Quad }
  }

  /** Follow something, and keep what follows it; its id, none if it was not found. */
  async function keep(wanted: Tracked, name: string): Promise<string> {
    const video = clip()
    if (!video || !(await store.ask(video.media, wanted)) || clip()?.id !== video.id) return ''
    const item = { ...wanted, name }
    await project.edit({ kind: 'add_item', clips: [video.id ?? ''], list: 'trackers', item })
    return trackers.value.at(-1)?.id ?? ''
  }

  // What was found for trackers that are there is fetched; what is missing is looked for.
  watch(
    () => [clip()?.media, trackers.value] as const,
    ([media, all]) => {
      if (media) for (const one of all) void store.ask(media, one)
    },
    { immediate: true },
  )
  return { trackers, tick, sourceAt, span, through, keep, foundOf, seenOf, momentOf }
}
