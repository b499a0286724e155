import { computed } from 'vue'
import { client, need } from '@/api/client'
import type { RetouchedClip, RetouchStroke } from '@/api/types'
import type { Spot } from '@/motion/quads'
import { useAlong } from '@/picture/useAlong'
import { useScreen } from '@/player/inject'
import { useKit } from '@/stores/kit'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { useRetouching } from '@/stores/retouching'
import { t } from '@/texts'
import { offsetFrom, takesFrom, toolOf } from './retouch'

/** Strokes on the picture of a take in hand: painted, one of them in hand. */
export function useRetouch(clip: () => RetouchedClip) {
  const kit = useKit()
  const notes = useNotes()
  const project = useProject()
  const store = useRetouching()
  const { player } = useScreen()
  const { tick, alongOfPart } = useAlong()

  const strokes = computed<RetouchStroke[]>(() => clip().strokes ?? [])
  const stroke = computed(() => strokes.value.find(({ id }) => id === store.taken) ?? null)
  const tool = computed(() => toolOf(store.tool))
  const controlsOf = (kind: string) =>
    kit.layer?.strokes.find((one) => one.kind === kind)?.controls ?? []
  /** Values of the strokes to come. */
  const brush = computed<Record<string, number>>(() => ({
    ...Object.fromEntries(
      controlsOf(tool.value.kind).map(({ name, default: rest }) => [name, Number(rest)]),
    ),
    ...tool.value.fresh,
    ...store.brushes[store.tool],
  }))
  const setBrush = (values: Record<string, unknown>) =>
    (store.brushes = {
      ...store.brushes,
      [store.tool]: { ...store.brushes[store.tool], ...(values as Record<string, number>) },
    })

  async function paint(points: Spot[], pressures: number[]) {
    const { kind } = tool.value
    const drawn = { kind, points, pressures, since: tick.value, ...brush.value }
    const source = takesFrom(kind) ? { source: await sourceFor(points, drawn) } : {}
    const parts = [{ ...drawn, ...source }] as never
    const clips = [clip().id ?? '']
    const { made } = await project.make({ kind: 'add_parts', clips, list: 'strokes', parts })
    if (made[0]) store.taken = made[0]
  }

  /** The place that was picked; or one that the program finds. */
  async function sourceFor(points: Spot[], drawn: object): Promise<Spot> {
    const picked = offsetFrom(points[0] ?? [0, 0], store)
    if (picked) {
      store.offset = picked
      return picked
    }
    const beside: Spot = [2 * (brush.value.width ?? 0.06), 0]
    try {
      const stroke = { ...drawn, kind: 'heal_stroke' as const, points }
      const asked = client.POST('/api/projects/{id}/revisions/{revision}/stroke-source', {
        params: { path: { id: project.id, revision: project.seen }, query: project.look },
        body: { clip: clip().id ?? '', frame: player.shown.value, stroke: stroke as never },
      })
      const { source } = await need(asked)
      if (source) return source as Spot
      notes.told(t('layer.retouchPart.noSource'))
    } catch (error) {
      notes.problem(error)
    }
    return beside
  }

  return { strokes, stroke, tool, brush, setBrush, controlsOf, paint, tick, alongOfPart }
}
