/** What the graph of a property is drawn from: pure functions of its keys. */
import type { Bezier, Ease } from '@/motion/easing'
import { eased, isBezier } from '@/motion/easing'
import { valueAt, type Key, type Keyed } from '@/motion/keys'
import { t } from '@/texts'

export interface Range {
  low: number
  high: number
}

/** How many curves a value has: numbers and points have one a number, others only their progress. */
export function axesOf(value: unknown): string[] {
  if (typeof value === 'number') return [t('move.graph.value')]
  if (Array.isArray(value) && value.every((one) => typeof one === 'number')) {
    return value.length === 2
      ? [t('words.across'), t('words.down')]
      : value.map((_, index) => `${index + 1}`)
  }
  return []
}

/** Height of the curve at a tick; of what has no number, how many keys it is past. */
export function heightAt(prop: Keyed, axis: number, tick: number): number {
  const value = valueAt(prop, tick)
  if (typeof value === 'number') return value
  if (axesOf(value).length) return Number((value as number[])[axis])
  const next = prop.keys.findIndex((key) => key.at > tick)
  if (next === 0) return 0
  const index = next < 0 ? prop.keys.length - 1 : next - 1
  const [before, after] = [prop.keys[index], prop.keys[index + 1]]
  if (!before || !after) return index
  return index + eased(before.ease, (tick - before.at) / (after.at - before.at))
}

export function heightOf(prop: Keyed, axis: number, index: number): number {
  const value = prop.keys[index]?.value
  if (typeof value === 'number') return value
  return axesOf(value).length ? Number((value as number[])[axis]) : index
}

const SAMPLES = 240

/** The curve as points (tick, height), denser than it is drawn. */
export function curveOf(prop: Keyed, axis: number, time: Range): [number, number][] {
  const ticks = new Set(
    Array.from(
      { length: SAMPLES + 1 },
      (_, i) => time.low + ((time.high - time.low) * i) / SAMPLES,
    ),
  )
  for (const { at } of prop.keys) {
    // Both sides of a jump.
    ticks.add(at - 1).add(at)
  }
  return [...ticks]
    .sort((a, b) => a - b)
    .map((tick) => [tick, heightAt(prop, axis, tick)] as [number, number])
}

/** Its speed: change of the height in a second. */
export function speedsOf(
  prop: Keyed,
  axis: number,
  time: Range,
  second: number,
): [number, number][] {
  const step = (time.high - time.low) / SAMPLES
  return Array.from({ length: SAMPLES + 1 }, (_, i) => {
    const tick = time.low + step * i
    const rise = heightAt(prop, axis, tick + step / 2) - heightAt(prop, axis, tick - step / 2)
    return [tick, (rise / step) * second] as [number, number]
  })
}

/** A little more than what there is to see, never nothing. */
export function rangeOf(heights: number[], least: number): Range {
  const [low, high] = [Math.min(...heights), Math.max(...heights)]
  const room = Math.max((high - low) * 0.14, least / 2)
  return { low: low - room, high: high + room }
}

/** Even steps for lines of a scale: 1, 2 or 5 times a power of ten. */
export function linesOf({ low, high }: Range, wanted: number): number[] {
  const raw = (high - low) / wanted
  const ten = 10 ** Math.floor(Math.log10(raw))
  const step = ten * (raw / ten > 5 ? 10 : raw / ten > 2 ? 5 : raw / ten > 1 ? 2 : 1)
  const found = []
  for (let at = Math.ceil(low / step) * step; at <= high; at += step) {
    found.push(Math.round(at / step) * step || 0)
  }
  return found
}

/** The ease as handles: a steady stretch has them on its line; what is no curve has none. */
export function handlesOf(ease: Ease | undefined): Bezier | null {
  if (!ease || ease.kind === 'steady') {
    return { kind: 'bezier', x1: 1 / 3, y1: 1 / 3, x2: 2 / 3, y2: 2 / 3 }
  }
  return isBezier(ease) ? ease : null
}

export type Side = 'after' | 'before'

interface Stretch {
  from: Key
  to: Key
  rise: number
  ease: Bezier
}

function stretchOf(prop: Keyed, axis: number, index: number): Stretch | null {
  const [from, to] = [prop.keys[index], prop.keys[index + 1]]
  const ease = handlesOf(from?.ease)
  if (!from || !to || !ease) return null
  return { from, to, ease, rise: heightOf(prop, axis, index + 1) - heightOf(prop, axis, index) }
}

/** Where the handle of a key is: tick and height. */
export function handleAt(
  prop: Keyed,
  axis: number,
  index: number,
  side: Side,
): [number, number] | null {
  const part = stretchOf(prop, axis, side === 'after' ? index : index - 1)
  if (!part) return null
  const { from, to, ease, rise } = part
  const base = heightOf(prop, axis, side === 'after' ? index : index - 1)
  const [x, y] = side === 'after' ? [ease.x1, ease.y1] : [ease.x2, ease.y2]
  return [from.at + x * (to.at - from.at), base + y * rise]
}

/** Where it is in the graph of speeds: its height there is the speed at the key. */
export function speedHandleAt(
  prop: Keyed,
  axis: number,
  index: number,
  side: Side,
  second: number,
): [number, number] | null {
  const part = stretchOf(prop, axis, side === 'after' ? index : index - 1)
  if (!part) return null
  const { from, to, ease, rise } = part
  const long = to.at - from.at
  const mean = (rise / long) * second
  if (side === 'after') {
    return [from.at + ease.x1 * long, mean * (ease.x1 > 1e-6 ? ease.y1 / ease.x1 : 0)]
  }
  const x = 1 - ease.x2
  return [from.at + ease.x2 * long, mean * (x > 1e-6 ? (1 - ease.y2) / x : 0)]
}

const MOST = 10
const bounded = (y: number) => Math.round(Math.min(MOST, Math.max(-MOST, y)) * 1000) / 1000
const share = (x: number) => Math.round(Math.min(1, Math.max(0, x)) * 1000) / 1000

/** The property after a handle was dragged to a tick and height; `linked` keeps both in line. */
export function withHandle(
  prop: Keyed,
  axis: number,
  index: number,
  side: Side,
  [tick, height]: [number, number],
  linked: boolean,
): Keyed {
  const place = side === 'after' ? index : index - 1
  const part = stretchOf(prop, axis, place)
  if (!part) return prop
  const { from, to, rise } = part
  const x = share((tick - from.at) / (to.at - from.at))
  const level = heightOf(prop, axis, place)
  const y = rise ? bounded((height - level) / rise) : side === 'after' ? 0 : 1
  const ease: Bezier =
    side === 'after' ? { ...part.ease, x1: x, y1: y } : { ...part.ease, x2: x, y2: y }
  const changed = withEase(prop, place, ease)
  return linked ? inLine(changed, axis, index, side) : changed
}

/** The same from the graph of speeds. */
export function withSpeedHandle(
  prop: Keyed,
  axis: number,
  index: number,
  side: Side,
  [tick, speed]: [number, number],
  linked: boolean,
  second: number,
): Keyed {
  const place = side === 'after' ? index : index - 1
  const part = stretchOf(prop, axis, place)
  if (!part) return prop
  const { from, to, rise, ease } = part
  const long = to.at - from.at
  const away = Math.min(0.98, Math.max(0.02, Math.abs(tick - (prop.keys[index]?.at ?? 0)) / long))
  const way = rise ? bounded(((speed / second) * long * away) / rise) : 0
  const next: Bezier =
    side === 'after'
      ? { ...ease, x1: share(away), y1: way }
      : { ...ease, x2: share(1 - away), y2: bounded(1 - way) }
  const changed = withEase(prop, place, next)
  return linked ? inLine(changed, axis, index, side) : changed
}

function withEase(prop: Keyed, place: number, ease: Ease): Keyed {
  return { keys: prop.keys.map((key, at) => (at === place ? { ...key, ease } : key)) }
}

/** The key's other handle turned so that both are in one line; its length in time stays. */
function inLine(prop: Keyed, axis: number, index: number, moved: Side): Keyed {
  const mine = handleAt(prop, axis, index, moved)
  const key = prop.keys[index]
  const otherPlace = moved === 'after' ? index - 1 : index
  const other = stretchOf(prop, axis, otherPlace)
  if (!mine || !key || !other || !other.rise) return prop
  const level = heightOf(prop, axis, index)
  const run = mine[0] - key.at
  if (!run) return prop
  const slope = (mine[1] - level) / run
  const long = other.to.at - other.from.at
  if (moved === 'after') {
    const rise = slope * (1 - other.ease.x2) * long
    return withEase(prop, otherPlace, { ...other.ease, y2: bounded(1 - rise / other.rise) })
  }
  const rise = slope * other.ease.x1 * long
  return withEase(prop, otherPlace, { ...other.ease, y1: bounded(rise / other.rise) })
}

/** Which of the keys in hand stays while the others come nearer to it or go away. */
export type Stays = 'first' | 'last'

/** Where a key at a tick comes to, as `StretchKeys` of the core does it; `stays` is a tick too. */
export function stretched(tick: number, stays: number, factor: number, frame: number): number {
  return stays + Math.round(((tick - stays) * factor) / frame) * frame
}

/** The property with some keys at other times; keys that they come onto give way. */
export function withKeysAt(prop: Keyed, there: Map<number, number>): Keyed {
  const moved = prop.keys.flatMap((key) => {
    const at = there.get(key.at)
    return at === undefined ? [] : [{ ...key, at }]
  })
  const taken = new Set(moved.map(({ at }) => at))
  const rest = prop.keys.filter(({ at }) => !there.has(at) && !taken.has(at))
  return { keys: [...rest, ...moved].sort((a, b) => a.at - b.at) }
}

/** The property with one key at another time and height; keys it is dragged onto give way. */
export function withKeyMoved(
  prop: Keyed,
  index: number,
  axis: number,
  at: number,
  height: number | null,
): Keyed {
  const key = prop.keys[index]
  if (!key) return prop
  let value = key.value
  if (height !== null && typeof value === 'number') value = height
  else if (height !== null && axesOf(value).length) {
    value = (value as number[]).map((one, i) => (i === axis ? height : one))
  }
  const rest = prop.keys.filter((one, i) => i !== index && one.at !== at)
  return { keys: [...rest, { ...key, at, value }].sort((a, b) => a.at - b.at) }
}
