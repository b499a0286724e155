import { createStore, delMany, entries, set, type UseStore } from 'idb-keyval'
import type { Waiting } from './line'

let store: UseStore | null = null

function steps(): UseStore {
  store ??= createStore('velvet-kite-steps', 'waiting')
  return store
}

const nameOf = ({ project, seed }: Waiting) => `${project}/${seed}`

/** Steps that wait, on this device: they outlive a reload, and the browser. */
export interface Outbox {
  keep(step: Waiting): Promise<void>
  drop(step: Waiting): Promise<void>
  /** Those of a project in the order in which they were made; without one, of all. */
  load(project?: string): Promise<Waiting[]>
}

/** Where a browser forbids to keep anything, steps wait in memory alone. */
export const outbox: Outbox = {
  keep: (step) => quietly(() => set(nameOf(step), step, steps()), undefined),
  drop: (step) => quietly(() => delMany([nameOf(step)], steps()), undefined),
  async load(project) {
    const all = await quietly(() => entries<string, Waiting>(steps()), [])
    return all
      .map(([, step]) => step)
      .filter((step) => !project || step.project === project)
      .sort((a, b) => a.made - b.made)
  },
}

async function quietly<T>(act: () => Promise<T>, otherwise: T): Promise<T> {
  try {
    return await act()
  } catch {
    return otherwise
  }
}
