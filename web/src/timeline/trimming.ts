import { isHolding, isPaced, type Clip, type PacedClip, type Track } from '@/api/types'
import { endOf, startOf } from '@/stores/project'
import { pointsOf, sourceOffset } from '@/motion/speed'

/** Frames that a clip is at most drawn out by: more than any source lasts. */
const MOST = 2 ** 22

/** Tick at which the source of a clip ends. */
function sourceEnd(clip: PacedClip): number {
  if (!isHolding(clip)) return clip.source_length
  return Math.max(0, ...clip.tracks.map((track) => endOf(track.clips?.at(-1))))
}

/**
 * How far the start of a clip can go earlier and its end later before its source ends, in ticks,
 * whole frames of `step`. The core decides it (`ClipBase.reach`); this is to stop a drag in time.
 */
export function reachOf(clip: Clip, step: number): [number, number] {
  if (!isPaced(clip)) return [Infinity, Infinity]
  const points = pointsOf(clip.speed)
  const [soft, end] = [clip.speed?.soft ?? true, sourceEnd(clip)]
  const holds = (tick: number) => {
    const at = (clip.source_in ?? 0) + Math.round(sourceOffset(points, soft, tick))
    return at >= 0 && at <= end
  }
  if (!holds(0) || !holds(clip.length)) return [-step, -step]
  const most = (fits: (frames: number) => boolean) => furthest(fits) * step
  return [most((n) => holds(-n * step)), most((n) => holds(clip.length + n * step))]
}

/** The largest number up to which something holds; without end if it does at the most. */
function furthest(holds: (count: number) => boolean): number {
  let good = 0
  let next = 1
  while (next <= MOST && holds(next)) {
    good = next
    next *= 2
  }
  if (next > MOST) return Infinity
  let bad = next
  while (bad - good > 1) {
    const middle = Math.floor((good + bad) / 2)
    if (holds(middle)) good = middle
    else bad = middle
  }
  return good
}

/** The earliest start and the latest end that a clip can be dragged to on its track. */
export function trimRoom(clip: Clip, track: Track, step: number): [number, number] {
  const [earlier, later] = reachOf(clip, step)
  let [low, high] = [startOf(clip) - earlier, endOf(clip) + later]
  if (track.closes_gaps) return [low, high]
  low = Math.max(low, 0)
  for (const other of track.clips) {
    if (endOf(other) <= startOf(clip)) low = Math.max(low, endOf(other))
    if (startOf(other) >= endOf(clip)) high = Math.min(high, startOf(other))
  }
  return [low, high]
}
