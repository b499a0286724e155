import { computed, onScopeDispose, shallowRef, triggerRef, watch } from 'vue'
import { client, need } from '@/api/client'
import type { Insert } from '@/api/types'
import { useScreen } from '@/player/inject'
import { useProject } from '@/stores/project'
import { useAsking } from '@/stores/useAsking'
import type { ChainOwner } from './chain'
import { filmOf } from './useLevels'

/** Windows of a second that are kept. */
const KEPT = 60

/** By how many dB an insert turns the frame that is shown down; null while that is not known. */
export function useReduction(chain: ChainOwner, insert: () => Insert) {
  const project = useProject()
  const { player } = useScreen()
  const { here } = useAsking()
  const windows = shallowRef(new Map<string, number[] | null>())
  let open = true
  onScopeDispose(() => (open = false))

  const long = computed(() => Math.ceil(project.rate.num / project.rate.den))
  const nameOf = (at: number) => [filmOf(project.source), insert().id, at].join(' ')

  async function measure(at: number) {
    const name = nameOf(at)
    const [first, last] = [at * long.value, Math.min((at + 1) * long.value, project.frames)]
    if (windows.value.has(name) || last <= first) return
    windows.value.set(name, null)
    const { path, query } = here()
    const body = { first, last, owner: chain.owner(), insert: insert().id ?? '' }
    try {
      const url = '/api/projects/{id}/revisions/{revision}/reduction'
      const found = await need(client.POST(url, { params: { path, query }, body }))
      windows.value.set(name, found)
    } catch {
      // What is not told is shown as nothing; it is asked for again with the next step.
      windows.value.delete(name)
    }
    const oldest = windows.value.keys().next().value
    if (windows.value.size > KEPT && oldest !== undefined) windows.value.delete(oldest)
    if (open) triggerRef(windows)
  }

  const at = computed(() => Math.floor(player.shown.value / long.value))
  watch(
    [at, () => nameOf(at.value), player.playing],
    () => {
      measure(at.value)
      if (player.playing.value) measure(at.value + 1)
    },
    { immediate: true },
  )

  return computed(
    () => windows.value.get(nameOf(at.value))?.[player.shown.value - at.value * long.value] ?? null,
  )
}
