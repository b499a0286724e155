import type { Clip, Track } from '@/api/types'
import { endOf, startOf } from '@/stores/project'

export type Way = 'before' | 'after' | 'above' | 'below' | 'first' | 'last'

/** How near two clips are in time: 0 where they overlap. */
function apart(one: Clip, other: Clip): number {
  return Math.max(0, startOf(other) - endOf(one) + 1, startOf(one) - endOf(other) + 1)
}

/**
 * The clip next to one, among rows from the top down: on its row, or the one nearest in time on the
 * next row that has any. Null at the edge.
 */
export function neighbour(rows: readonly Track[], id: string, way: Way): Clip | null {
  const at = rows.findIndex((row) => row.clips.some((clip) => clip.id === id))
  const row = rows[at]
  if (!row) return null
  const index = row.clips.findIndex((clip) => clip.id === id)
  if (way === 'before') return row.clips[index - 1] ?? null
  if (way === 'after') return row.clips[index + 1] ?? null
  if (way === 'first') return row.clips[0] ?? null
  if (way === 'last') return row.clips.at(-1) ?? null
  const from = row.clips[index]
  const beyond = way === 'above' ? rows.slice(0, at).reverse() : rows.slice(at + 1)
  const next = beyond.find((one) => one.clips.length)
  if (!from || !next) return null
  return closest(next.clips, from)
}

function closest(clips: readonly Clip[], to: Clip): Clip | null {
  const [first, ...rest] = clips
  if (!first) return null
  return rest.reduce((best, clip) => (apart(to, clip) < apart(to, best) ? clip : best), first)
}

/** The clip that is nearest to where another was: on its row, else on any other. */
export function nearest(rows: readonly Track[], gone: Clip, row: number): Clip | null {
  const all = rows.flatMap((one) => one.clips)
  return closest(rows[row]?.clips ?? [], gone) ?? closest(all, gone)
}
