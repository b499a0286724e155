import type { InjectionKey, Ref, ShallowRef } from 'vue'

/** One of the controls of a part: a value, or something larger such as a curve. */
export interface Entry {
  id: symbol
  name: () => string
  /** What it says of its value, short. */
  told: () => string
  /** Whether it changes over time. */
  keyed: () => boolean
  element: Ref<HTMLElement | null>
  /** Whether it stands behind the others. */
  last: () => boolean
}

/** A place for one control at a time: the others stand beside it by their names. */
export interface Tray {
  /** Whether they are shown one at a time; otherwise each of them stands where it stands. */
  single: Ref<boolean>
  entries: ShallowRef<Entry[]>
  taken: Ref<symbol | null>
}

export const TRAY: InjectionKey<Tray | null> = Symbol('tray')

/** As they follow each other on the page. */
export function inOrder(entries: Entry[]): Entry[] {
  return [...entries].sort((a, b) => {
    if (a.last() !== b.last()) return a.last() ? 1 : -1
    const [one, other] = [a.element.value, b.element.value]
    if (!one || !other) return 0
    return one.compareDocumentPosition(other) & Node.DOCUMENT_POSITION_FOLLOWING ? -1 : 1
  })
}

/** Let the control of that name have the place, if there is one. */
export function bring(tray: Tray | null, name: string) {
  const found = tray?.entries.value.find((one) => one.name() === name)
  if (tray && found) tray.taken.value = found.id
}
