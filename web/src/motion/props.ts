import { isKeyed, keyAt, moves, type Keyed } from './keys'

/** Properties by path, wherever they are. */

export type KeyedState = 'none' | 'some' | 'here'

export function read(from: unknown, path: string): unknown {
  if (!path) return from
  return path.split('/').reduce<unknown>((inner, name) => {
    if (Array.isArray(inner)) return inner[placeOf(inner, name)] as unknown
    return (inner as Record<string, unknown> | null)?.[name]
  }, from)
}

/** The numbers of a point, as paths name them. */
export const AXES = ['across', 'down']

/** The path of a point to which that of one of its numbers leads; any other path as it is. */
export const wholeOf = (path: string) =>
  AXES.some((way) => path.endsWith(`/${way}`)) ? path.slice(0, path.lastIndexOf('/')) : path

/** Where the part of a list is that a path names: by its id, its number or, of a point, its axis. */
function placeOf(list: unknown[], name: string): number {
  if (AXES.includes(name) && typeof list[0] === 'number') return AXES.indexOf(name)
  const found = list.findIndex((one) => (one as { id?: string } | null)?.id === name)
  return found >= 0 ? found : Number(name)
}

/** A copy without some of its fields. */
export function omitted<T extends object, K extends keyof T>(from: T, ...names: K[]): Omit<T, K> {
  const gone = new Set<PropertyKey>(names)
  return Object.fromEntries(Object.entries(from).filter(([name]) => !gone.has(name))) as Omit<T, K>
}

export interface KeyedProp {
  path: string
  prop: Keyed
}

/** Every property of a clip that has keys, with its path; what a group holds is its own. */
export function keyedProps(from: unknown, path = ''): KeyedProp[] {
  if (isKeyed(from)) return [{ path, prop: from }]
  const inner = (name: string) => (path ? `${path}/${name}` : name)
  if (Array.isArray(from)) {
    return from.flatMap((one: unknown, index) =>
      keyedProps(one, inner((one as { id?: string } | null)?.id ?? String(index))),
    )
  }
  if (typeof from !== 'object' || !from) return []
  return Object.entries(from).flatMap(([name, one]) =>
    name === 'tracks' || isIdle(from, name) ? [] : keyedProps(one, inner(name)),
  )
}

/** When words of a text are said counts for nothing while none is lit. */
const isIdle = (from: object, name: string) => name === 'said' && 'lit' in from && !from.lit

/** Every property with keys in something, however deep; what a group holds has its own. */
export function everyKeyed(from: unknown): unknown[] {
  return keyedProps(from).map(({ prop }) => prop)
}

export function keyedState(prop: unknown, tick: number): KeyedState {
  if (!moves(prop)) return 'none'
  return keyAt(prop, tick) ? 'here' : 'some'
}
