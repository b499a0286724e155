import { computed } from 'vue'
import type { StillClip } from '@/api/types'
import type { Layer } from '@/inhand/useLayer'
import type { Schemas } from '@/api/client'

type CutStroke = Schemas['CutStroke']

/** What is cut out of the still in hand: strokes that say what is kept. */
export function useCutout(layer: Layer, clip: () => StillClip) {
  const cutout = computed(() => clip().cutout ?? null)
  const strokes = computed<CutStroke[]>(() => cutout.value?.strokes ?? [])

  const add = (stroke: Pick<CutStroke, 'points' | 'width' | 'drop'>) =>
    cutout.value
      ? layer.addItem('cutout/strokes', stroke)
      : layer.setWhole({ cutout: { strokes: [stroke] } })
  const around = computed(() => cutout.value?.around ?? [])
  /** The line around it; what was painted stays. */
  const surround = (points: [number, number][]) =>
    cutout.value ? set({ around: points }) : layer.setWhole({ cutout: { around: points } })
  const takeLast = () => layer.removeItem(`cutout/strokes/${strokes.value.length - 1}`)
  const again = () => layer.setWhole({ cutout: null })
  const paths = (values: Record<string, unknown>) =>
    Object.fromEntries(Object.entries(values).map(([name, value]) => [`cutout/${name}`, value]))
  const set = (values: Record<string, unknown>) => layer.setWhole(paths(values))
  const trying = (values: Record<string, unknown>) => layer.tryWhole(paths(values))

  return { cutout, strokes, around, add, surround, takeLast, again, set, trying }
}
