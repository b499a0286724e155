import { createSharedComposable, useDebounceFn } from '@vueuse/core'
import { computed, onScopeDispose, shallowRef, triggerRef, watch } from 'vue'
import { needBytes } from '@/api/client'
import type { Source } from '@/api/source'
import { useScreen } from '@/player/inject'
import { useProject } from '@/stores/project'

/** Of one strip at one frame, in dB: peaks left and right, means left and right. */
export type Level = [number, number, number, number]

interface PieceLevels {
  first: number
  strips: Record<string, { peaks: [number, number][]; means: [number, number][] }>
}

/** Milliseconds that the playhead rests before its frame is measured. */
const REST_MS = 140
/** Frames whose levels are kept. */
const KEPT = 6000

/** What is heard of: a project as it is at a step, or a part of it. */
export const filmOf = (source: Source) =>
  `${source.base}?${new URLSearchParams(source.query).toString()}`

/** The levels of the frame that is shown: they come with the pieces that are heard. */
export const useLevels = createSharedComposable(() => {
  const project = useProject()
  const { player } = useScreen()
  const frames = shallowRef(new Map<number, Record<string, Level>>())
  const closing = new AbortController()
  let film = ''

  async function fetch(source: Source, first: number, last: number) {
    const query = new URLSearchParams({ ...source.query, first: `${first}`, last: `${last}` })
    const bytes = await needBytes(`${source.base}/levels?${query}`, { signal: closing.signal })
    if (!bytes.byteLength) return
    take(JSON.parse(new TextDecoder().decode(bytes)) as PieceLevels, filmOf(source))
  }

  function take(piece: PieceLevels, of: string) {
    if (of !== film && !player.playing.value) frames.value.clear()
    film = of
    if (frames.value.size > KEPT) frames.value.clear()
    for (const [strip, { peaks, means }] of Object.entries(piece.strips)) {
      peaks.forEach((peak, at) => {
        const frame = piece.first + at
        const known = frames.value.get(frame) ?? {}
        known[strip] = [...peak, ...(means[at] ?? peak)] as Level
        frames.value.set(frame, known)
      })
    }
    triggerRef(frames)
  }

  // What is not told is shown as silence; the player itself tells of what is wrong.
  const quietly = (asked: Promise<void>) => asked.catch(() => {})

  watch(player.heard, (now) => now && quietly(fetch(now.of, now.first, now.last)))

  const rested = useDebounceFn(() => {
    const { source } = project
    const frame = player.shown.value
    if (player.playing.value || !project.frames || frame >= project.frames) return
    if (filmOf(source) === film && frames.value.has(frame)) return
    quietly(fetch(source, frame, frame + 1))
  }, REST_MS)
  watch([player.shown, player.playing, () => project.source.base, () => project.within], rested, {
    immediate: true,
  })
  onScopeDispose(() => closing.abort())

  const now = computed<Record<string, Level>>(() => frames.value.get(player.shown.value) ?? {})
  return { now }
})
