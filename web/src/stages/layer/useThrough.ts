import { computed, shallowRef, watch } from 'vue'
import type { VideoClip } from '@/api/types'
import type { Layer } from '@/inhand/useLayer'
import { doubtsOf } from '@/motion/tracks'
import { outerTick } from '@/motion/inside'
import { useTracked } from '@/picture/useTracked'
import { useCutting, type CutThrough } from '@/stores/cutting'
import { useProject } from '@/stores/project'
import { frameOf } from '@/time'
import { whyAgain } from './through'

/** What was marked on frames of a video, cut out of all of them. */
export function useThrough(layer: Layer, clip: () => VideoClip) {
  const project = useProject()
  const store = useCutting()
  const { span, sourceAt } = useTracked(clip)
  const cutout = computed(() => clip().cutout ?? null)
  const through = computed(() => cutout.value?.through ?? null)
  const frameAt = (source: number) => frameOf(outerTick(clip(), source), project.rate)

  /** What is being looked for. */
  const asked = shallowRef<CutThrough | null>(null)
  const sought = computed(() => asked.value ?? through.value)
  const job = computed(() => sought.value && store.jobOf(clip().media, sought.value))
  const stale = computed(() => {
    const ends = [0, clip().length].map((local) => sourceAt((clip().start ?? 0) + local))
    return whyAgain(cutout.value, Math.min(...ends), Math.max(...ends))
  })
  /** Frames of the timeline that are marked, in order. */
  const marked = computed(() =>
    (cutout.value?.views ?? []).map(({ at }) => frameAt(at)).sort((a, b) => a - b),
  )
  /** Frames at which less was found than was to be expected, the first of each such stretch. */
  const doubts = computed(() => {
    const found = through.value && store.foundOf(clip().media, through.value)
    if (!found) return []
    return doubtsOf(found)
      .map(({ from }) => frameAt(from))
      .sort((a, b) => a - b)
  })

  async function find() {
    const [now, id] = [cutout.value, clip().id]
    if (!now) return
    const { views, edge } = now
    const wanted: CutThrough = { views, edge, ...span(views.map(({ at }) => at)) }
    asked.value = wanted
    const found = await store.ask(clip().media, wanted)
    if (asked.value === wanted) asked.value = null
    if (found && clip().id === id) await layer.setWhole({ 'cutout/through': wanted })
  }
  function cancel() {
    if (sought.value) store.cancel(clip().media, sought.value)
  }
  // What was found is fetched; if it is missing, it is looked for.
  watch(
    through,
    (one) => {
      if (one) void store.ask(clip().media, one)
    },
    { immediate: true },
  )

  return { through, asked, job, stale, marked, doubts, find, cancel }
}
