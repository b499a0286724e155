import { TICKS_PER_SECOND, type Step, type Take } from '@/api/types'

export const STILL_LENGTH = 3 * TICKS_PER_SECOND

export type PlaceMode = 'end' | 'push' | 'over' | 'above'

/** The marked part of a take: all of it where nothing is marked. */
export function markedPart(take: Take): { from: number; to: number } {
  const length = take.facts?.length || STILL_LENGTH
  const from = take.mark_in ?? 0
  return { from, to: Math.max(from, Math.min(take.mark_out ?? length, length)) }
}

/** The step that puts the marked part of a take on the timeline. */
export function placeStep(take: Take, mode: PlaceMode, at: number): Step | null {
  const facts = take.facts
  if (!facts) return null
  const { from, to } = markedPart(take)
  const name = take.name.replace(/\.[a-z0-9]{2,5}$/i, '')
  const part = { name, media: take.media, length: Math.max(1, to - from) }
  const clip =
    facts.kind === 'still'
      ? { kind: 'still', ...part }
      : { kind: facts.kind, ...part, source_in: from, source_length: facts.length }
  return { kind: 'place', mode, at, clip: clip as never }
}
