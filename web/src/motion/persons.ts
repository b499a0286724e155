import type { Schemas } from '@/api/client'
import { momentAt } from './tracks'
import type { Quad } from './quads'

type Seen = Schemas['SeenFace']
type Found = Schemas['TrackFound']

/** Where a person's face is at a tick of the file: as it was followed, or as it was seen last; none if it is not there. */
export function faceAt(seen: Seen, found: Found | null, tick: number): Quad | null {
  if (tick < seen.first || tick > seen.last) return null
  if (found) {
    const { quad, sure } = momentAt(found, tick)
    return sure ? quad : null
  }
  const views = seen.tracked.views.toSorted((a, b) => a.at - b.at)
  const view = views.findLast(({ at }) => at <= tick) ?? views[0]
  return view?.corners ?? null
}
