import type { ComputedRef } from 'vue'
import type { Insert } from '@/api/types'

/** Whoever has a chain of inserts: what is in hand, a track, or the film. */
export interface ChainOwner {
  inserts: ComputedRef<Insert[]>
  /** Id of the clip or of the track; empty for the film. */
  owner(): string
  /** Tick from where its keys count from. */
  local: ComputedRef<number>
  locked: ComputedRef<boolean>
  /** The id of the new one. */
  add(kind: string): Promise<string>
  addAll(inserts: readonly Insert[], name: string, instead?: boolean): void
  set(id: string, values: Record<string, unknown>): Promise<boolean>
  remove(id: string): Promise<boolean>
  order(id: string, to: number): Promise<boolean>
  /** Where a noise is learnt; null where it cannot be. */
  noiseOf(): { track?: string; clip?: string } | null
}
