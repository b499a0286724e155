import { TICKS_PER_SECOND, type Step, type Take } from '@/api/types'

export const STILL_LENGTH = 3 * TICKS_PER_SECOND

export type PlaceMode = 'end' | 'push' | 'over' | 'above'

/** The marked part of a take: all of it where nothing is marked. */
export function markedPart(take: Take): { from: number; to: number } {
  const length = take.facts?.length || STILL_LENGTH
  const from = take.mark_in ?? 0
  return { from, to: Math.max(from, Math.min(take.mark_out ?? length, length)) }
}

/** The marked part of a take as a clip, as it is sent. */
export function clipOf(take: Take, stillLength = STILL_LENGTH): Record<string, unknown> | null {
  const facts = take.facts
  if (!facts) return null
  const { from, to } = facts.kind === 'still' ? { from: 0, to: stillLength } : markedPart(take)
  const name = take.name.replace(/\.[a-z0-9]{2,5}$/i, '')
  const part = { name, media: take.media, length: Math.max(1, to - from) }
  return facts.kind === 'still'
    ? { kind: 'still', ...part }
    : { kind: facts.kind, ...part, source_in: from, source_length: facts.length }
}

/** The step that puts the marked part of a take on the timeline. */
export function placeStep(take: Take, mode: PlaceMode, at: number): Step | null {
  const clip = clipOf(take)
  return clip && { kind: 'place', mode, at, clip: clip as never }
}

/** The number at the end of a file's name; -1 where there is none. */
export function numberOf(name: string): number {
  const found = /(\d+)\D*$/.exec(name.replace(/\.[a-z0-9]{2,5}$/i, ''))
  return found ? Number(found[1]) : -1
}

/** Stills in the order of their numbers, as one clip. */
export function sequenceOf(
  takes: Take[],
  each: number,
  order: 'forward' | 'backward' | 'there_and_back',
): Record<string, unknown> {
  const sorted = [...takes].sort(
    (a, b) => numberOf(a.name) - numberOf(b.name) || a.name.localeCompare(b.name),
  )
  const shown = order === 'there_and_back' ? Math.max(1, 2 * sorted.length - 2) : sorted.length
  return {
    kind: 'sequence',
    name: (sorted[0]?.name ?? 'Stills').replace(/[\s._-]*\d*\.[a-z0-9]{2,5}$/i, '') || 'Stills',
    pictures: sorted.map((take) => take.media),
    each,
    order,
    length: each * shown,
  }
}
