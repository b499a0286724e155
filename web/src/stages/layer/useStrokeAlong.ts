import { computed, shallowRef } from 'vue'
import type { RetouchedClip, RetouchStroke } from '@/api/types'
import type { Spot } from '@/motion/quads'
import { useAlong } from '@/picture/useAlong'
import { useLibrary } from '@/stores/library'
import { useProject } from '@/stores/project'
import { useTracking, type Tracked } from '@/stores/tracking'
import { t } from '@/texts'
import { surroundings } from './retouch'

/** A stroke that goes along with something that is followed in its video. */
export function useStrokeAlong(clip: () => RetouchedClip, stroke: () => RetouchStroke) {
  const project = useProject()
  const library = useLibrary()
  const tracking = useTracking()
  const { trackers, tick, through, alongOfPart } = useAlong()
  const media = () => {
    const one = clip()
    return one.kind === 'video' ? one.media : ''
  }

  const asked = shallowRef<Tracked | null>(null)
  const job = computed(() => asked.value && tracking.jobOf(media(), asked.value))

  /** Its values where it is now, with another tracker from now on, or none. */
  function goneWith(tracker: string | null): Record<string, unknown> {
    const now = stroke()
    const along = alongOfPart(now)
    const values: Record<string, unknown> = { tracker, since: tick.value }
    if (!along) return values
    const turned = ([x, y]: Spot): Spot => {
      const [from, to] = [along.to([0, 0]), along.to([x, y])]
      return [to[0] - from[0], to[1] - from[1]]
    }
    const source = 'source' in now && now.source ? { source: turned(now.source) } : {}
    const points = (now.points as Spot[]).map(along.to)
    return { ...values, ...source, points, width: (now.width ?? 0.06) * along.size }
  }

  /** What lies around it is followed, through all that the clip shows; then it goes along with that. */
  async function withSurroundings() {
    const [one, id, at] = [stroke(), clip().id ?? '', tick.value]
    const picture = library.byMedia.get(media())?.facts?.picture
    const aspect = picture ? picture.width / picture.height : 1
    const corners = surroundings(one.points, one.width ?? 0.06, aspect)
    const tracked = through('turns', at, corners)
    asked.value = tracked
    const found = await tracking.ask(media(), tracked)
    if (asked.value === tracked) asked.value = null
    if (!found || clip().id !== id) return
    const name = t('layer.strokePart.around', { n: trackers.value.length + 1 })
    const strokes = [one.id ?? '']
    await project.edit({ kind: 'strokes_along', clip: id, strokes, tracked, since: at, name })
  }

  const cancel = () => asked.value && tracking.cancel(media(), asked.value)
  return { trackers, job, goneWith, withSurroundings, cancel }
}
