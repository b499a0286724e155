import { TICKS_PER_SECOND } from '@/api/types'

export const LEAST_ZOOM = 0.02
const FRAMES_ZOOM = 900
const SAMPLES_ZOOM = 384_000
/** Pixels of a second: from three hours on a phone to single frames, or samples, under a finger. */
const WIDEST = 24_000_000
/** Pixels that a browser can lay out beside each other, with room for some beyond the end. */

/** Pixels of a second at most, for a film of so many seconds. */
export function mostZoom(seconds: number): number {
  return Math.min(SAMPLES_ZOOM, Math.max(FRAMES_ZOOM, WIDEST / Math.max(seconds, 1)))
}

export function toPx(tick: number, pxPerSecond: number): number {
  return (tick / TICKS_PER_SECOND) * pxPerSecond
}

export function toTick(px: number, pxPerSecond: number): number {
  return (px / pxPerSecond) * TICKS_PER_SECOND
}

/** Of a second, within a frame. */
const PARTS = [0.0001, 0.0002, 0.0005, 0.001, 0.002, 0.005, 0.01, 0.02]
const STEPS = [1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 1800, 3600]

export interface Mark {
  px: number
  /** Text of a large mark; small ones have none. */
  label: string
}

/** Marks of the ruler between two pixels: labels at least 64 px apart, with ticks between them. */
export function rulerMarks(
  from: number,
  to: number,
  pxPerSecond: number,
  framesPerSecond: number,
  clock: (seconds: number) => string,
): Mark[] {
  const frames = Math.ceil(framesPerSecond)
  const inFrames = [1, 2, 5, 10].filter((count) => count < frames).map((count) => count / frames)
  const parts = PARTS.filter((part) => part < 1 / frames)
  const step = [...parts, ...inFrames, ...STEPS].find((one) => one * pxPerSecond >= 64) ?? 7200
  const small = step >= 1 ? step / 2 : step
  const marks: Mark[] = []
  const first = Math.max(0, Math.floor(from / pxPerSecond / small))
  for (let at = first; at * small * pxPerSecond <= to; at++) {
    const seconds = at * small
    const large = small === step || at % 2 === 0
    marks.push({ px: seconds * pxPerSecond, label: large ? clock(seconds) : '' })
  }
  return marks
}

/** Where to scroll to so that the point under the pointer stays there while zooming. */
export function scrollAfterZoom(scroll: number, pointer: number, factor: number): number {
  return Math.max(0, (scroll + pointer) * factor - pointer)
}

/** Index of the first of an ordered row of clips that ends after a tick. */
export function firstEndingAfter(
  clips: readonly { start?: number; length: number }[],
  tick: number,
): number {
  let low = 0
  let high = clips.length
  while (low < high) {
    const middle = (low + high) >> 1
    const clip = clips[middle]
    if (clip && (clip.start ?? 0) + clip.length <= tick) low = middle + 1
    else high = middle
  }
  return low
}
