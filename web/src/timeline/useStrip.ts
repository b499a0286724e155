import { computed, type Ref } from 'vue'
import type { Clip, Track } from '@/api/types'
import { endOf, startOf } from '@/stores/project'
import { firstEndingAfter, toPx, toTick } from '@/timeline/scale'

export interface StripClip {
  clip: Clip
  left: number
  width: number
}

/** The clips of one row that can be seen while the playhead stands still in the middle. */
export function useStrip(
  track: Ref<Track | null>,
  playhead: Ref<number>,
  zoom: Ref<number>,
  width: Ref<number>,
) {
  /** Pixels of the timeline; they move in steps, so that scrubbing a little redraws nothing. */
  const STEP = 240
  const nearFrom = computed(() => {
    const from = toPx(playhead.value, zoom.value) - width.value / 2
    return Math.floor(from / STEP) * STEP - STEP
  })
  const nearTo = computed(() => nearFrom.value + width.value + 3 * STEP)

  const clips = computed<StripClip[]>(() => {
    const all = track.value?.clips ?? []
    const found: StripClip[] = []
    for (const clip of all.slice(firstEndingAfter(all, toTick(nearFrom.value, zoom.value)))) {
      const left = toPx(startOf(clip), zoom.value)
      if (left > nearTo.value) break
      found.push({ clip, left, width: Math.max(3, toPx(endOf(clip), zoom.value) - left) })
    }
    return found
  })
  return { nearFrom, nearTo, clips }
}
