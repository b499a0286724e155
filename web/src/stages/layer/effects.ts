import type { Schemas } from '@/api/client'
import { KIND_NAMES } from '@/api/kinds'
import { isPictured, type Clip, type Track } from '@/api/types'

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

/**
 * Layers besides some, by names that tell them apart: first those that are seen at the same time,
 * from back to front.
 */
export function othersOf(
  tracks: readonly Track[],
  own: readonly string[],
): { id: string; name: string }[] {
  const all = tracks.flatMap((track) => (track.clips ?? []).map((clip) => ({ clip, track })))
  const mine = all.filter(({ clip }) => own.includes(clip.id ?? ''))
  const meets = ({ start = 0, length }: Clip) =>
    mine.some(
      ({ clip }) => start < (clip.start ?? 0) + clip.length && start + length > (clip.start ?? 0),
    )
  return all
    .filter(({ clip }) => isPictured(clip) && clip.kind !== 'adjustment')
    .filter(({ clip }) => !own.includes(clip.id ?? ''))
    .sort((a, b) => Number(meets(b.clip)) - Number(meets(a.clip)))
    .map(({ clip, track }) => ({
      id: clip.id ?? '',
      name: `${clip.name || KIND_NAMES[clip.kind]} · ${track.name}`,
    }))
}
