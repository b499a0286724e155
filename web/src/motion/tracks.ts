import type { Schemas } from '@/api/client'
import type { Quad, Spot } from './quads'

export type Found = Schemas['TrackFound']
/** Why something is not found for sure. */
export type Reason = NonNullable<Found['why'][number]>

/** 0..255: from which on what was found is taken for sure. */
export const SURE = 166

export interface Moment {
  quad: Quad
  sure: number
}

function indexAt({ ticks }: Found, tick: number): number {
  // A frame whose time was rounded up a little still counts as shown.
  const at = tick + 7056
  let [low, high] = [0, ticks.length - 1]
  while (low < high) {
    const middle = Math.ceil((low + high) / 2)
    if ((ticks[middle] ?? 0) <= at) low = middle
    else high = middle - 1
  }
  return low
}

/** Where the thing is at a tick of the file. */
export function momentAt(found: Found, tick: number): Moment {
  const index = indexAt(found, tick)
  const numbers = found.quads[index] ?? []
  const quad = [0, 2, 4, 6].map((n): Spot => [numbers[n] ?? 0, numbers[n + 1] ?? 0]) as Quad
  return { quad, sure: found.sure[index] ?? 0 }
}

/** To how many times the size of some corners a thing grows, at least once. */
export function growth({ quads }: Pick<Found, 'quads'>, quad: Quad): number {
  const side = (numbers: readonly number[]) =>
    Math.max(...[0, 1].map((axis) => spread(numbers.filter((_, n) => n % 2 === axis))))
  const now = side(quad.flat())
  return now > 0 ? Math.min(Math.max(1, ...quads.map((one) => side(one) / now)), 100) : 1
}
const spread = (numbers: readonly number[]) => Math.max(...numbers) - Math.min(...numbers)

export interface Doubt {
  from: number
  to: number
  lost: boolean
  why: Reason | null
}

/** Stretches, in ticks of the file, in which it is lost or not sure. */
export function doubtsOf(found: Pick<Found, 'ticks' | 'sure'> & Partial<Found>): Doubt[] {
  const all: Doubt[] = []
  found.ticks.forEach((tick, index) => {
    const sure = found.sure[index] ?? 0
    if (sure >= SURE) return
    const last = all.at(-1)
    const before = index > 0 && (found.sure[index - 1] ?? 0) < SURE
    if (last && before) Object.assign(last, { to: tick, lost: last.lost || !sure })
    else all.push({ from: tick, to: tick, lost: !sure, why: found.why?.[index] ?? null })
  })
  return all
}
