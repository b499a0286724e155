/** Properties as the page reads and changes them: a value, or keys over time. */

export interface Key {
  at: number
  value: unknown
  ease?: { kind: string; x1?: number; y1?: number; x2?: number; y2?: number }
}

export interface Keyed {
  keys: Key[]
}

export function isKeyed(prop: unknown): prop is Keyed {
  return Array.isArray((prop as Partial<Keyed> | null | undefined)?.keys)
}

/** The value at a tick counted from the start of its clip, as the core reads it. */
export function valueAt(prop: unknown, tick: number): unknown {
  if (!isKeyed(prop)) return prop
  const { keys } = prop
  const next = keys.findIndex((key) => key.at > tick)
  if (next === 0) return keys[0]?.value
  const before = keys[next < 0 ? keys.length - 1 : next - 1]
  const after = keys[next]
  if (!before || !after || next < 0) return before?.value
  const share = eased(before.ease, (tick - before.at) / (after.at - before.at))
  return between(before.value, after.value, share)
}

function between(a: unknown, b: unknown, share: number): unknown {
  if (typeof a === 'number' && typeof b === 'number') return a + (b - a) * share
  if (Array.isArray(a) && Array.isArray(b) && a.length === b.length) {
    return a.map((one, index) => between(one, b[index], share))
  }
  return share < 1 ? a : b
}

export function eased(ease: Key['ease'], progress: number): number {
  if (!ease || ease.kind === 'steady') return progress
  if (ease.kind === 'hold') return progress >= 1 ? 1 : 0
  const { x1 = 0, y1 = 0, x2 = 1, y2 = 1 } = ease
  let [low, high] = [0, 1]
  for (let step = 0; step < 40; step++) {
    const middle = (low + high) / 2
    if (axis(x1, x2, middle) < progress) low = middle
    else high = middle
  }
  return axis(y1, y2, (low + high) / 2)
}

function axis(first: number, second: number, t: number): number {
  return 3 * (1 - t) ** 2 * t * first + 3 * (1 - t) * t * t * second + t ** 3
}

export function keyAt(prop: unknown, tick: number): Key | null {
  return isKeyed(prop) ? (prop.keys.find((key) => key.at === tick) ?? null) : null
}

/** The property with a value at a tick: a key where it has keys, else the value for all of it. */
export function changedAt(prop: unknown, tick: number, value: unknown): unknown {
  return isKeyed(prop) ? withKey(prop, tick, value) : value
}

/** The property with a key at a tick; what had no keys before gets its first. */
export function withKey(prop: unknown, tick: number, value: unknown): Keyed {
  const keys = isKeyed(prop) ? prop.keys : []
  const ease = keyAt(prop, tick)?.ease ?? keys.filter((key) => key.at < tick).at(-1)?.ease
  const key = ease ? { at: tick, value, ease } : { at: tick, value }
  const others = keys.filter((one) => one.at !== tick)
  return { keys: [...others, key].sort((a, b) => a.at - b.at) }
}

/** Without the key at a tick; without the last one a plain value again. */
export function withoutKey(prop: Keyed, tick: number): unknown {
  const keys = prop.keys.filter((key) => key.at !== tick)
  return keys.length ? { keys } : valueAt(prop, tick)
}

/** The property with a key at a tick, or without the one that is there; `rest` is its default. */
export function toggledKey(prop: unknown, tick: number, rest: unknown): unknown {
  return isKeyed(prop) && keyAt(prop, tick)
    ? withoutKey(prop, tick)
    : withKey(prop, tick, valueAt(prop, tick) ?? rest)
}

/** Ticks of the keys before and after one. */
export function around(
  prop: unknown,
  tick: number,
): { before: number | null; after: number | null } {
  const ticks = isKeyed(prop) ? prop.keys.map((key) => key.at) : []
  return {
    before: ticks.filter((at) => at < tick).at(-1) ?? null,
    after: ticks.find((at) => at > tick) ?? null,
  }
}
