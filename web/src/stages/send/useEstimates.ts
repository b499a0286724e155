import { computed, ref, watch } from 'vue'
import { client, need, type Schemas } from '@/api/client'
import type { ExportSettings } from '@/api/types'
import { useProject } from '@/stores/project'
import { useSending } from '@/stores/sending'
import { useJobAnswer } from '@/stores/useJobAnswer'

type Estimate = Schemas['EstimateOut']

const keyOf = (settings: ExportSettings) => JSON.stringify(settings)

/** What the files that are wanted would weigh and take, as trials on the server find out. */
export function useEstimates() {
  const project = useProject()
  const sending = useSending()
  const known = ref(new Map<string, Estimate>())

  async function askFor(settings: ExportSettings) {
    const params = { path: { id: project.id } }
    try {
      const found = await need(
        client.POST('/api/projects/{id}/estimates', { params, body: settings }),
      )
      known.value.set(keyOf(settings), found)
      return [found.job]
    } catch {
      // An estimate is an extra: what is wrong is told when the file is asked for.
      known.value.delete(keyOf(settings))
      return []
    }
  }

  async function ask() {
    if (!project.length) return []
    return (await Promise.all(sending.wanted.map(askFor))).flat()
  }
  watch(
    () => project.revision,
    () => known.value.clear(),
  )
  useJobAnswer('estimate', () => [project.revision, sending.wanted], ask)

  const of = (settings: ExportSettings | null) =>
    settings ? (known.value.get(keyOf(settings)) ?? null) : null
  const all = computed(() => {
    const found = sending.wanted.map(of)
    if (!found.length || found.some((one) => one?.bytes == null)) return null
    const sum = (of: 'bytes' | 'seconds') => found.reduce((all, one) => all + (one?.[of] ?? 0), 0)
    return { bytes: sum('bytes'), seconds: sum('seconds') }
  })
  /** Of the trials, 0..1. */
  const share = computed(() => {
    const shares = sending.wanted.map((one) => of(one)?.job.share ?? 0)
    return shares.reduce((sum, one) => sum + one, 0) / Math.max(1, shares.length)
  })
  return { of, all, share }
}
