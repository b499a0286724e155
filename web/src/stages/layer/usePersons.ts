import { computed } from 'vue'
import type { VideoClip } from '@/api/types'
import { outerTick } from '@/motion/inside'
import { faceAt } from '@/motion/persons'
import { useTracked } from '@/picture/useTracked'
import { useFaces } from '@/stores/faces'
import { useProject } from '@/stores/project'
import { useTracking, wantedOf, type Tracked } from '@/stores/tracking'
import { t } from '@/texts'
import { clockOf, frameOf } from '@/time'

/** Where something was seen: a tracker with the same follows the same person, however wide. */
const sightOf = (one: Tracked) => JSON.stringify({ ...wantedOf(one), face: true })

/** Persons whose faces were found in a video, as far as a clip shows them; what follows each, once something does. */
export function usePersons(clip: () => VideoClip) {
  const project = useProject()
  const faces = useFaces()
  const store = useTracking()
  const { trackers, tick, keep } = useTracked(clip)
  const frameAt = (source: number) => frameOf(outerTick(clip(), source), project.rate)

  const persons = computed(() =>
    (faces.found[clip().media] ?? []).flatMap((person, index) => {
      const [from, to] = [frameAt(person.first), frameAt(person.last)].sort((a, b) => a - b)
      const start = frameOf(clip().start ?? 0, project.rate)
      const end = frameOf((clip().start ?? 0) + clip().length, project.rate)
      if ((to ?? 0) < start || (from ?? 0) >= end) return []
      const wanted = sightOf(person.tracked)
      const tracker = trackers.value.find((one) => sightOf(one) === wanted) ?? null
      const name = t('layer.facesPart.face', { n: index + 1 })
      const seen = `${clockOf(Math.max(from ?? 0, start), project.rate)} – ${clockOf(Math.min(to ?? 0, end), project.rate)}`
      return [{ person, tracker, name, seen, from: Math.max(from ?? 0, start) }]
    }),
  )
  /** Where faces are at the playhead, whether they are covered or not. */
  const here = computed(() =>
    persons.value.flatMap(({ person }) => {
      const quad = faceAt(person, store.foundOf(clip().media, person.tracked), tick.value)
      return quad ? [quad] : []
    }),
  )
  return { persons, here, tick, keep }
}
