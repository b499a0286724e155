import { computed, type Ref } from 'vue'
import type { Clip, Track } from '@/api/types'
import { endOf, startOf, useProject } from '@/stores/project'
import { firstEndingAfter, toPx, toTick } from '@/timeline/scale'
import type { Draft } from '@/timeline/useDrags'

export interface Shown {
  clip: Clip
  left: number
  width: number
}

/** Which clips of each row are drawn, and where. */
export function useDrawn(
  rows: Ref<Track[]>,
  view: Ref<{ from: number; to: number }>,
  zoom: Ref<number>,
  zooming: Ref<boolean>,
  dragged: Ref<Draft | null>,
) {
  const project = useProject()

  /** What is drawn reaches past what is seen and moves in steps: scrolling a little redraws nothing. */
  const STEP = 320
  const margin = computed(() => (zooming.value ? 0 : STEP))
  const nearFrom = computed(() => Math.floor(view.value.from / STEP) * STEP - margin.value)
  const nearTo = computed(() => Math.ceil(view.value.to / STEP) * STEP + margin.value)

  /** The clips of each row that are drawn, and where; a dragged one where it is dragged. */
  const drawn = computed(() => rows.value.map((track) => ({ track, clips: shown(track) })))

  function shown(track: Track): Shown[] {
    const draft = dragged.value
    const from = toTick(nearFrom.value, zoom.value)
    const to = toTick(nearTo.value, zoom.value)
    const found: Shown[] = []
    for (const clip of track.clips.slice(firstEndingAfter(track.clips, from))) {
      const mine = draft?.id === clip.id ? draft : null
      if (mine?.track && mine.track !== track.id) continue
      const start = mine?.start ?? startOf(clip)
      if (start > to && !mine) break
      found.push(placed(clip, start, mine?.end ?? endOf(clip)))
    }
    if (draft && draft.track === track.id && !found.some(({ clip }) => clip.id === draft.id)) {
      const moved = project.findClip(draft.id)
      if (moved) found.push(placed(moved.clip, draft.start, draft.end))
    }
    return found
  }

  /** Where the name of a clip begins that lies across the left edge of what is seen. */
  function labelAt(one: Shown): number {
    const hidden = view.value.from - one.left
    return hidden > 0 && hidden < one.width ? hidden : 0
  }

  function placed(clip: Clip, start: number, end: number): Shown {
    const left = toPx(start, zoom.value)
    return { clip, left, width: Math.max(3, toPx(end, zoom.value) - left) }
  }

  return { nearFrom, nearTo, drawn, labelAt }
}
