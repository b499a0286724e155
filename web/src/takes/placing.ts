import type { Schemas } from '@/api/client'
import { TICKS_PER_SECOND, type Step, type Take } from '@/api/types'

/** What a still is shown as while nobody says otherwise; the core places it as long. */
export const STILL_LENGTH = 3 * TICKS_PER_SECOND

export type TakePart = Schemas['TakePart']
export type PlaceMode = 'end' | 'push' | 'over' | 'above'

/** The marked part of a take: all of it where nothing is marked. */
export function markedPart(take: Take): { from: number; to: number } {
  const length = take.facts?.length || STILL_LENGTH
  const from = take.mark_in ?? 0
  return { from, to: Math.max(from, Math.min(take.mark_out ?? length, length)) }
}

/** A take as steps name it; nothing while its file has not been looked at. */
export function partOf(take: Take): TakePart | null {
  const { facts, media, name, mark_in, mark_out } = take
  return facts && { media, name, kind: facts.kind, length: facts.length, mark_in, mark_out }
}

/** Several takes as steps name them. */
export function partsOf(takes: Take[]): TakePart[] {
  return takes.map(partOf).filter((part) => part !== null)
}

/** The step that puts the marked part of a take on the timeline. */
export function placeStep(take: Take, mode: PlaceMode, at: number): Step | null {
  const part = partOf(take)
  return part && { kind: 'place_takes', takes: [part], mode, at }
}
