import { computed } from 'vue'
import type { StillClip, VideoClip } from '@/api/types'
import type { Layer } from '@/inhand/useLayer'
import type { Schemas } from '@/api/client'
import { useTracked } from '@/picture/useTracked'

type CutStroke = Schemas['CutStroke']
type Marks = Pick<Schemas['CutView'], 'strokes' | 'around' | 'persons'>
type Spot = [number, number]

/**
 * What is cut out of the still or video in hand: strokes, a line around, taps on persons. Of a video they are
 * those of the frame that is shown.
 */
export function useCutout(layer: Layer, clip: () => StillClip | VideoClip) {
  const video = computed(() => {
    const one = clip()
    return one.kind === 'video' ? one : null
  })
  const { tick } = useTracked(() => video.value)
  const cutout = computed(() => clip().cutout ?? null)
  const views = computed(() => video.value?.cutout?.views ?? [])
  const view = computed(() => views.value.findIndex(({ at }) => at === tick.value))
  /** Where the marks are kept, by path; none where nothing is marked yet. */
  const place = computed(() => {
    if (!video.value) return cutout.value ? 'cutout' : ''
    return view.value < 0 ? '' : `cutout/views/${view.value}`
  })
  const marks = computed<Partial<Marks>>(() => {
    const one = clip()
    return (one.kind === 'video' ? views.value[view.value] : one.cutout) ?? {}
  })
  const strokes = computed<CutStroke[]>(() => marks.value.strokes ?? [])
  const around = computed(() => marks.value.around ?? [])
  const persons = computed(() => marks.value.persons ?? [])
  const marked = computed(() =>
    Boolean(strokes.value.length || around.value.length > 1 || persons.value.length),
  )

  /** The first mark of a picture. */
  function begin(first: Partial<Marks>) {
    if (!video.value) return layer.setWhole({ cutout: first })
    const fresh = { at: tick.value, ...first }
    return cutout.value
      ? layer.addItem('cutout/views', fresh)
      : layer.setWhole({ cutout: { views: [fresh] } })
  }
  const add = (stroke: Pick<CutStroke, 'points' | 'width' | 'drop' | 'hair'>) =>
    place.value
      ? layer.addItem(`${place.value}/strokes`, stroke)
      : begin({ strokes: [stroke] as CutStroke[] })
  const addPerson = (spot: Spot) =>
    place.value ? layer.addItem(`${place.value}/persons`, spot) : begin({ persons: [spot] })
  /** The line around it; what was painted stays. */
  const surround = (points: Spot[]) =>
    place.value ? layer.setWhole({ [`${place.value}/around`]: points }) : begin({ around: points })

  /** Without what was painted last, or tapped, or drawn around. */
  function takeLast() {
    const [painted, tapped] = [strokes.value.length, persons.value.length]
    const all = painted + tapped + (around.value.length ? 1 : 0)
    if (video.value && all === 1) return layer.removeItem(place.value)
    if (painted) return layer.removeItem(`${place.value}/strokes/${painted - 1}`)
    if (tapped) return layer.removeItem(`${place.value}/persons/${tapped - 1}`)
    return layer.setWhole({ [`${place.value}/around`]: [] })
  }

  const again = () => layer.setWhole({ cutout: null })
  const paths = (values: Record<string, unknown>) =>
    Object.fromEntries(Object.entries(values).map(([name, value]) => [`cutout/${name}`, value]))
  const set = (values: Record<string, unknown>) => layer.setWhole(paths(values))
  const trying = (values: Record<string, unknown>) => layer.tryWhole(paths(values))

  return {
    ...{ cutout, strokes, around, persons, marked },
    ...{ add, addPerson, surround, takeLast, again, set, trying },
  }
}
