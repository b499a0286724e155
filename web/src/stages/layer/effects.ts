import type { Schemas } from '@/api/client'
import { KIND_NAMES } from '@/api/kinds'
import { isPictured, type Track } from '@/api/types'

type Kind = Pick<Schemas['EffectKind'], 'kind' | 'title' | 'help' | 'family'>

export const FAVOURITES = 'favourites'
export type Family = Kind['family'] | typeof FAVOURITES
/**
 * Effects of a family, or of all, whose title or help holds all words that were typed; titles that
 * begin so come first.
 */
export function found<One extends Kind>(
  kinds: readonly One[],
  typed: string,
  family: Family | '' = '',
  favourites: readonly string[] = [],
): One[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean)
  const first = words[0] ?? ''
  const within = (one: One) =>
    family === '' || (family === FAVOURITES ? favourites.includes(one.kind) : one.family === family)
  return kinds
    .filter((one) => {
      const text = `${one.title} ${one.help}`.toLowerCase()
      return within(one) && words.every((word) => text.includes(word))
    })
    .map((one) => ({ one, starts: first && one.title.toLowerCase().startsWith(first) ? 0 : 1 }))
    .sort((a, b) => a.starts - b.starts || a.one.title.localeCompare(b.one.title))
    .map(({ one }) => one)
}

/** Whether an effect reads another layer. */
export const readsLayer = (kind: Pick<Schemas['EffectKind'], 'controls'>) =>
  kind.controls.some(({ control }) => control === 'layer')

/** Layers besides some, from back to front, by names that tell them apart. */
export function othersOf(
  tracks: readonly Track[],
  own: readonly string[],
): { id: string; name: string }[] {
  return tracks.flatMap((track) =>
    (track.clips ?? [])
      .filter((one) => isPictured(one) && one.kind !== 'adjustment')
      .filter((one) => !own.includes(one.id ?? ''))
      .map((one) => ({
        id: one.id ?? '',
        name: `${one.name || KIND_NAMES[one.kind]} · ${track.name}`,
      })),
  )
}
