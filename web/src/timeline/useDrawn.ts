import { computed, type Ref } from 'vue'
import type { Clip, Track } from '@/api/types'
import { startOf, useProject } from '@/stores/project'
import { crowded, leastAlone, NARROW, type Shown } from '@/timeline/crowds'
import { firstEndingAfter, toPx, toTick } from '@/timeline/scale'
import type { Draft } from '@/timeline/useDrags'

/** Which clips of each row are drawn, and where. */
export function useDrawn(
  rows: Ref<Track[]>,
  view: Ref<{ from: number; to: number }>,
  zoom: Ref<number>,
  zooming: Ref<boolean>,
  dragged: Ref<Draft | null>,
  /** Whether a clip is drawn by itself, however narrow it is. */
  single: (clip: Clip) => boolean,
) {
  const project = useProject()

  /**
   * What is drawn reaches past what is seen and moves in steps: scrolling a little redraws nothing. While
   * the scale changes it is what is seen and no more: coming closer brings nothing new.
   */
  const STEP = 320
  const nearFrom = computed(() => {
    const { from } = view.value
    return zooming.value ? from : (Math.floor(from / STEP) - 1) * STEP
  })
  const nearTo = computed(() => {
    const { to } = view.value
    return zooming.value ? to : (Math.ceil(to / STEP) + 1) * STEP
  })

  /** The clips of each row that are drawn, and where; a dragged one where it is dragged. */
  const drawn = computed(() => {
    const near = rows.value.map((track) => ({ track, clips: nearOf(track) }))
    const count = near.reduce((sum, { clips }) => sum + clips.length, 0)
    const least = leastAlone(count, zooming.value)
    return near.map(({ track, clips }) => ({ track, ...shown(track, clips, least) }))
  })

  /** Those of a track that can be seen, but for one that is dragged. */
  function nearOf(track: Track): Clip[] {
    const from = toTick(nearFrom.value, zoom.value)
    const to = toTick(nearTo.value, zoom.value)
    const near: Clip[] = []
    for (let at = firstEndingAfter(track.clips, from); at < track.clips.length; at++) {
      const clip = track.clips[at]
      if (!clip || startOf(clip) > to) break
      if (clip.id !== dragged.value?.id) near.push(clip)
    }
    return near
  }

  function shown(track: Track, near: Clip[], least: number) {
    const draft = dragged.value
    const { alone, plain, crowds } = crowded(near, zoom.value, single, least)
    const moved = draft && project.findClip(draft.id)
    if (draft && moved && (draft.track ?? moved.track.id) === track.id) {
      alone.push(placed(moved.clip, draft.start, draft.end))
    }
    return { clips: alone, plain, crowds }
  }

  /** Where the name of a clip begins that lies across the left edge of what is seen. */
  function labelAt(one: Shown): number {
    const hidden = view.value.from - one.left
    return hidden > 0 && hidden < one.width ? hidden : 0
  }

  function placed(clip: Clip, start: number, end: number): Shown {
    const left = toPx(start, zoom.value)
    return { clip, left, width: Math.max(NARROW, toPx(end, zoom.value) - left) }
  }

  return { nearFrom, nearTo, drawn, labelAt }
}
