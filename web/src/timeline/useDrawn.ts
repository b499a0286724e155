import { computed, type Ref } from 'vue'
import type { Clip, Track } from '@/api/types'
import { startOf, useProject } from '@/stores/project'
import { crowded, NARROW, type Shown } from '@/timeline/crowds'
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

  /** What is drawn reaches past what is seen and moves in steps: scrolling a little redraws nothing. */
  const STEP = 320
  const margin = computed(() => (zooming.value ? 0 : STEP))
  const nearFrom = computed(() => Math.floor(view.value.from / STEP) * STEP - margin.value)
  const nearTo = computed(() => Math.ceil(view.value.to / STEP) * STEP + margin.value)

  /** The clips of each row that are drawn, and where; a dragged one where it is dragged. */
  const drawn = computed(() => rows.value.map((track) => ({ track, ...shown(track) })))

  function shown(track: Track) {
    const draft = dragged.value
    const from = toTick(nearFrom.value, zoom.value)
    const to = toTick(nearTo.value, zoom.value)
    const near: Clip[] = []
    for (let at = firstEndingAfter(track.clips, from); at < track.clips.length; at++) {
      const clip = track.clips[at]
      if (!clip || startOf(clip) > to) break
      if (clip.id !== draft?.id) near.push(clip)
    }
    const { alone, crowds } = crowded(near, zoom.value, single)
    const moved = draft && project.findClip(draft.id)
    if (draft && moved && (draft.track ?? moved.track.id) === track.id) {
      alone.push(placed(moved.clip, draft.start, draft.end))
    }
    return { clips: alone, crowds }
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
