import type { Take } from '@/api/types'
import { needBytes } from '@/api/client'
import { fileUrl } from '@/stores/library'

/** Samples a second of what is heard. */
export const RATE = 48_000
/** Samples of a stretch of a whole take's waveform. */
const STRETCH = 480
/** Samples of a stretch where one looks closer: at least one stretch for a pixel. */
const FINER = [64, 16, 4, 1]
/** Stretches that are fetched together, and how many such parts are kept. */
const PART = 4096
const KEPT = 64

/** Lowest and highest of left, then of right, full scale 1. */
export type Peak = [number, number, number, number]
/** What there is between two samples of a take. */
export type Wave = (from: number, to: number) => Peak

type Numbers = Int8Array | Int16Array

/** Those who draw anew once something is loaded: several clips may show one take. */
const waiting = new Map<string, Set<() => void>>()

export function awaits(name: string, redraw: () => void) {
  waiting.set(name, (waiting.get(name) ?? new Set()).add(redraw))
}

export function arrived(name: string) {
  const all = waiting.get(name)
  waiting.delete(name)
  all?.forEach((redraw) => redraw())
}

/** Numbers by their address, null while they come; of more than `most` the longest unused go. */
interface Shelf {
  loaded: Map<string, Numbers | null>
  most: number
}
const wholes: Shelf = { loaded: new Map(), most: Infinity }
const parts: Shelf = { loaded: new Map(), most: KEPT }

function numbersAt(
  { loaded, most }: Shelf,
  url: string,
  read: (bytes: ArrayBuffer) => Numbers,
  redraw: () => void,
): Numbers | null {
  const known = loaded.get(url)
  if (known) {
    loaded.delete(url)
    loaded.set(url, known)
    return known
  }
  awaits(url, redraw)
  if (known === null) return null
  loaded.set(url, null)
  needBytes(url)
    .then((bytes) => {
      loaded.set(url, read(bytes))
      const oldest = loaded.keys().next().value
      if (loaded.size > most && oldest !== undefined) loaded.delete(oldest)
      arrived(url)
    })
    .catch(() => loaded.delete(url))
  return null
}

function scan(numbers: Numbers, full: number, from: number, to: number): Peak {
  const found: Peak = [0, 0, 0, 0]
  const first = Math.max(0, Math.floor(from))
  const last = Math.min(numbers.length / 4, Math.max(first + 1, Math.ceil(to)))
  for (let at = first; at < last; at++) {
    for (let of = 0; of < 4; of++) {
      const value = (numbers[at * 4 + of] ?? 0) / full
      if (at === first) found[of] = value
      else found[of] = of % 2 ? Math.max(found[of] ?? 0, value) : Math.min(found[of] ?? 0, value)
    }
  }
  return found
}

/** Samples of the stretches that a picture with so many samples to a pixel is drawn from. */
export function stretchFor(samplesPerPixel: number): number {
  if (samplesPerPixel >= STRETCH) return STRETCH
  return FINER.find((each) => each <= samplesPerPixel) ?? 1
}

/** The waveform of a take; null until it comes. Finer parts replace coarse ones as they come. */
export function waveOf(take: Take, samplesPerPixel: number, redraw: () => void): Wave | null {
  const whole = numbersAt(
    wholes,
    fileUrl(take, 'waveform.i8'),
    (bytes) => new Int8Array(bytes),
    redraw,
  )
  if (!whole) return null
  const coarse: Wave = (from, to) => scan(whole, 127, from / STRETCH, to / STRETCH)
  const each = stretchFor(samplesPerPixel)
  if (each === STRETCH) return coarse
  return (from, to) => {
    const first = Math.max(0, Math.floor(from / (PART * each))) * PART * each
    const url = `/api/takes/${take.id}/waveform?first=${first}&count=${PART}&each=${each}`
    const part = numbersAt(parts, url, (bytes) => new Int16Array(bytes), redraw)
    if (!part) return coarse(from, to)
    return scan(part, 32767, (from - first) / each, (to - first) / each)
  }
}
