import type { Schemas } from '@/api/client'

type Kind = Schemas['PartKind']

/** Effects whose title or help holds all words that were typed; titles that begin so come first. */
export function found(kinds: readonly Kind[], typed: string): Kind[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean)
  const first = words[0] ?? ''
  return kinds
    .filter((one) => {
      const text = `${one.title} ${one.help}`.toLowerCase()
      return words.every((word) => text.includes(word))
    })
    .map((one) => ({ one, starts: first && one.title.toLowerCase().startsWith(first) ? 0 : 1 }))
    .sort((a, b) => a.starts - b.starts || a.one.title.localeCompare(b.one.title))
    .map(({ one }) => one)
}
