import type { Contour } from '@/api/types'
import { contoursBetween } from './contours'
import { curveAt } from './curve'
import { eased, type Ease } from './easing'
import { mixed } from './oklab'
import { spotBetween, type Vector } from './spatial'

/** Properties as the page reads and changes them: a value, or keys over time. */

export interface Key {
  at: number
  value: unknown
  ease?: Ease
  /** Handles of a path, from the point. */
  before?: Vector
  after?: Vector
}

export interface Keyed {
  keys: Key[]
}

export function isKeyed(prop: unknown): prop is Keyed {
  return Array.isArray((prop as Partial<Keyed> | null | undefined)?.keys)
}

/** A point whose two numbers have keys of their own. */
export interface Axes {
  across: unknown
  down: unknown
}

export function isAxes(prop: unknown): prop is Axes {
  return typeof prop === 'object' && prop !== null && 'across' in prop && 'down' in prop
}

/** Whether it moves by keys, of whichever kind. */
export const moves = (prop: unknown): boolean =>
  isAxes(prop) ? isKeyed(prop.across) || isKeyed(prop.down) : isKeyed(prop)

/** Its keys; of a point whose numbers move apart, those of both. */
function keysOf(prop: unknown): Key[] {
  if (isAxes(prop)) {
    return [...keysOf(prop.across), ...keysOf(prop.down)].sort((a, b) => a.at - b.at)
  }
  return isKeyed(prop) ? prop.keys : []
}

/** The value at a tick counted from the start of its clip, as the core reads it. */
export function valueAt(prop: unknown, tick: number): unknown {
  if (isAxes(prop)) return [valueAt(prop.across, tick), valueAt(prop.down, tick)]
  if (!isKeyed(prop)) return prop
  const { keys } = prop
  const next = keys.findIndex((key) => key.at > tick)
  if (next === 0) return keys[0]?.value
  const before = keys[next < 0 ? keys.length - 1 : next - 1]
  const after = keys[next]
  if (!before || !after || next < 0) return before?.value
  const share = eased(before.ease, (tick - before.at) / (after.at - before.at))
  if (isVector(before.value) && isVector(after.value) && (before.after || after.before)) {
    const [a, b] = [before.value, after.value]
    return spotBetween(a, before.after ?? [0, 0], after.before ?? [0, 0], b, share)
  }
  return between(before.value, after.value, share)
}

function isVector(value: unknown): value is Vector {
  return Array.isArray(value) && value.length === 2 && typeof value[0] === 'number'
}

function between(a: unknown, b: unknown, share: number): unknown {
  if (typeof a === 'number' && typeof b === 'number') return a + (b - a) * share
  if (isHeld(a) || isHeld(b) || !Array.isArray(a) || !Array.isArray(b)) {
    return isColour(a) && isColour(b) ? mixed(a, b, share) : a
  }
  if (a.some(isContour) || b.some(isContour)) {
    return contoursBetween(a as Contour[], b as Contour[], share)
  }
  if (a.length !== b.length) return curveBetween(a as Vector[], b as Vector[], share)
  return a.map((one, index) => between(one, b[index], share))
}

const isColour = (value: unknown): value is string => /^#[0-9a-f]{6}$/.test(String(value))

/** Whether nothing lies between it and another: words, strokes of a brush. */
function isHeld(value: unknown): boolean {
  if (typeof value === 'string') return true
  return Array.isArray(value) && value.some((one) => Array.isArray((one as Painted | null)?.points))
}

type Painted = { points?: unknown }

function isContour(value: unknown): value is Contour {
  return Array.isArray((value as Partial<Contour> | null)?.nodes)
}

/** Between curves of different numbers of points: each is given points where the other has them. */
function curveBetween(a: Vector[], b: Vector[], share: number): Vector[] {
  const xs = [...new Set([...a, ...b].map(([x]) => x))].sort((one, other) => one - other)
  return xs.map((x) => {
    const [from, to] = [curveAt(a, x), curveAt(b, x)]
    return [x, from + (to - from) * share]
  })
}

export function keyAt(prop: unknown, tick: number): Key | null {
  return keysOf(prop).find((key) => key.at === tick) ?? null
}

/**
 * The property with a value at a tick: a key where it has keys, else the value for all of it. Of a
 * point whose numbers move apart only what differs is set.
 */
export function changedAt(prop: unknown, tick: number, value: unknown): unknown {
  if (isAxes(prop)) {
    const [across, down] = value as Vector
    return { across: differing(prop.across, tick, across), down: differing(prop.down, tick, down) }
  }
  return isKeyed(prop) ? withKey(prop, tick, value) : value
}

const NOTHING = 1e-6

function differing(prop: unknown, tick: number, value: number): unknown {
  return Math.abs(Number(valueAt(prop, tick)) - value) < NOTHING
    ? prop
    : changedAt(prop, tick, value)
}

/** The property with a key at a tick; what had no keys before gets its first. */
export function withKey(prop: unknown, tick: number, value: unknown): Keyed {
  const keys = isKeyed(prop) ? prop.keys : []
  const old = keyAt(prop, tick)
  const ease = old?.ease ?? keys.filter((key) => key.at < tick).at(-1)?.ease
  const key: Key = { ...old, at: tick, value, ...(ease ? { ease } : {}) }
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
  if (isAxes(prop)) {
    const toggled = (one: unknown) =>
      Boolean(keyAt(one, tick)) === Boolean(keyAt(prop, tick)) ? toggledKey(one, tick, 0) : one
    return { across: toggled(prop.across), down: toggled(prop.down) }
  }
  return isKeyed(prop) && keyAt(prop, tick)
    ? withoutKey(prop, tick)
    : withKey(prop, tick, valueAt(prop, tick) ?? rest)
}

/** Ticks of the keys before and after one. */
export function around(
  prop: unknown,
  tick: number,
): { before: number | null; after: number | null } {
  const ticks = keysOf(prop).map((key) => key.at)
  return {
    before: ticks.filter((at) => at < tick).at(-1) ?? null,
    after: ticks.find((at) => at > tick) ?? null,
  }
}
