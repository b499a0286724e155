import type { Tag, Take } from '@/api/types'
import { TAGS } from '@/api/kinds'

export type Sort = 'order' | 'name' | 'newest' | 'length' | 'stars'
export type Kind = 'all' | 'video' | 'still' | 'sound'

export interface Filter {
  words: string
  kind: Kind
  sort: Sort
  stars: number
  tag: Tag
  /** Id of a shelf, or null for all. */
  shelf: number | null
  /** Only those that no clip uses. */
  unused: boolean
}

export const EVERYTHING: Filter = {
  words: '',
  kind: 'all',
  sort: 'order',
  stars: 0,
  tag: '',
  shelf: null,
  unused: false,
}

const SORTS: Record<Sort, (a: Take, b: Take) => number> = {
  order: () => 0,
  name: (a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }),
  newest: (a, b) => b.made_at.localeCompare(a.made_at),
  length: (a, b) => (b.facts?.length ?? 0) - (a.facts?.length ?? 0),
  stars: (a, b) => b.stars - a.stars,
}

/** The takes that fit a filter, in its order; all words have to be in the name. */
export function filtered(takes: Take[], filter: Filter, uses: Map<string, number>): Take[] {
  const words = filter.words.toLowerCase().split(/\s+/).filter(Boolean)
  const found = takes.filter(
    (take) =>
      take.state !== 'arriving' &&
      (filter.kind === 'all' || take.facts?.kind === filter.kind) &&
      take.stars >= filter.stars &&
      (!filter.tag || take.tag === filter.tag) &&
      (filter.shelf === null || take.shelf === filter.shelf) &&
      (!filter.unused || !uses.get(take.media)) &&
      words.every((word) => take.name.toLowerCase().includes(word)),
  )
  return filter.sort === 'order' ? found : [...found].sort(SORTS[filter.sort])
}

interface Option<T> {
  value: T
  text: string
}

/** Colours to choose from; `none` is what stands for no colour. */
export function colourOptions(none: string): Option<Tag>[] {
  return TAGS.map((one) => ({ value: one.id, text: one.id ? one.name : none }))
}

/** Shelves to choose from; `none` is what stands for no shelf. */
export function shelfOptions(
  shelves: { id: number; name: string }[],
  none: string,
): Option<number | null>[] {
  const named = shelves.map((shelf) => ({ value: shelf.id, text: shelf.name }))
  return [{ value: null, text: none }, ...named]
}
