import type { Binding } from './keys'

/** Keys under a heading; a stage's stand under its own. */
export interface KeyGroup {
  id: string
  name: string
  keys: Binding[]
  /** Whether they mean the same in every stage. */
  everywhere?: boolean
}

/** The group of the keys that mean the same in every stage. */
export const ANYWHERE = 'anywhere'
/** The group of the verbs for clips. */
export const WITH_CLIPS = 'clips'

/** Keys that a person has set, by group and by what the key is otherwise; empty: none. */
export type OwnKeys = Record<string, string>

const idOf = (group: string, key: string) => `${group} ${key}`
const isSingle = (key: string) => [...key].length === 1

/** The key that a binding has now; empty if it has none. */
export function keyNow(own: OwnKeys, group: string, key: string, singles: boolean): string {
  const set = own[idOf(group, key)] ?? key
  return !singles && isSingle(set) ? '' : set
}

export function withKey(own: OwnKeys, group: string, key: string, to: string): OwnKeys {
  const id = idOf(group, key)
  const rest = Object.fromEntries(Object.entries(own).filter(([one]) => one !== id))
  return to === key ? rest : { ...rest, [id]: to }
}

/** The bindings of a group with the keys that they have now, without those that have none. */
export function bound(own: OwnKeys, group: KeyGroup, singles: boolean): Binding[] {
  return group.keys
    .map((one) => ({ ...one, key: keyNow(own, group.id, one.key, singles) }))
    .filter((one) => one.key)
}

/** What a key means already where a binding of `group` would be heard; none if it is free. */
export function meaning(
  own: OwnKeys,
  groups: readonly KeyGroup[],
  group: KeyGroup,
  binding: Binding,
  key: string,
): Binding | undefined {
  const heard = groups.filter((one) => one === group || one.everywhere || group.everywhere)
  return heard
    .flatMap((one) => one.keys.map((other) => ({ one, other })))
    .find(({ one, other }) => other !== binding && keyNow(own, one.id, other.key, true) === key)
    ?.other
}
