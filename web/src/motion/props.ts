import { isKeyed, keyAt } from './keys'

/** Properties by path, wherever they are. */

export type KeyedState = 'none' | 'some' | 'here'

export function read(from: unknown, path: string): unknown {
  if (!path) return from
  return path
    .split('/')
    .reduce<unknown>((inner, name) => (inner as Record<string, unknown> | null)?.[name], from)
}

/** A copy in which the value at a path is another one; what is missing on the way is made. */
export function written(from: unknown, path: string, value: unknown): unknown {
  const [head = '', ...rest] = path.split('/')
  if (Array.isArray(from)) {
    return from.map((one: unknown, index) =>
      index === Number(head) ? (rest.length ? written(one, rest.join('/'), value) : value) : one,
    )
  }
  const before = (from ?? {}) as Record<string, unknown>
  return { ...before, [head]: rest.length ? written(before[head], rest.join('/'), value) : value }
}

/** A copy without some of its fields. */
export function omitted<T extends object, K extends keyof T>(from: T, ...names: K[]): Omit<T, K> {
  const gone = new Set<PropertyKey>(names)
  return Object.fromEntries(Object.entries(from).filter(([name]) => !gone.has(name))) as Omit<T, K>
}

/** Every property with keys in something, however deep. */
export function everyKeyed(from: unknown): unknown[] {
  if (isKeyed(from)) return [from]
  if (Array.isArray(from)) return from.flatMap(everyKeyed)
  if (typeof from === 'object' && from) return Object.values(from).flatMap(everyKeyed)
  return []
}

export function keyedState(prop: unknown, tick: number): KeyedState {
  if (!isKeyed(prop)) return 'none'
  return keyAt(prop, tick) ? 'here' : 'some'
}
