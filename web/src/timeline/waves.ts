import { isSounding, TICKS_PER_SECOND, type Clip, type SoundingClip } from '@/api/types'
import { valueAt } from '@/motion/keys'
import type { WaveLook } from '@/stores/waves'
import { fadeAt } from '@/timeline/soundline'
import { RATE, type Peak, type Wave } from '@/timeline/peaks'

/** Decibels below full scale that are the middle of a wave drawn in decibels. */
const FLOOR = -60
/** Pixels from one sample to the next from which on single ones are drawn, and marked. */
const SINGLE = 1
const MARKED = 7
/** Pixels of a second from which on every one of them is drawn. */
const CLOSE = 100
const OVER = '#ff8f73'

interface Spot {
  x: number
  y: number
}

export interface Place {
  /** First and last pixel of the clip that can be seen, and the scale. */
  from: number
  to: number
  pxPerSecond: number
  top: number
  height: number
}

/** How much louder a clip makes its sound at a tick of its own: gain, fades, and whether it is muted. */
export function loudnessAt(clip: SoundingClip, tick: number): number {
  if (clip.muted) return 0
  const gain = 10 ** (Number(valueAt(clip.gain ?? 0, tick)) / 20)
  const share = (passed: number, of: number | undefined) =>
    of ? Math.min(1, Math.max(0, passed / of)) : 1
  const coming = fadeAt(clip.fade_in_shape ?? 'smooth', share(tick, clip.fade_in))
  const going = fadeAt(clip.fade_out_shape ?? 'smooth', share(clip.length - tick, clip.fade_out))
  return gain * coming * going
}

/** Left and right as they are heard. */
export function heard([a, b, c, d]: Peak, channels: SoundingClip['channels']): Peak {
  if (channels === 'left') return [a, b, a, b]
  if (channels === 'right') return [c, d, c, d]
  if (channels === 'swapped') return [c, d, a, b]
  if (channels === 'mono') return [(a + c) / 2, (b + d) / 2, (a + c) / 2, (b + d) / 2]
  return [a, b, c, d]
}

/** How far from the middle a level is drawn, 0 to 1. */
export function shown(level: number, decibels: boolean): number {
  const most = Math.min(1, Math.abs(level))
  if (!decibels) return most
  return Math.max(0, 1 - (20 * Math.log10(Math.max(most, 1e-6))) / FLOOR)
}

/** Draw the sound of a clip as it is heard: after its gain and its fades. */
export function drawWave(
  context: CanvasRenderingContext2D,
  clip: Clip,
  wave: Wave,
  place: Place,
  /** Sample of the source at seconds from the clip's start. */
  sampleAt: (seconds: number) => number,
  look: WaveLook,
) {
  if (!isSounding(clip)) return
  const apart = place.pxPerSecond / RATE
  const single = apart >= SINGLE && !look.decibels
  const step = single ? apart : place.pxPerSecond > CLOSE ? 1 : 2
  const plain = clip.kind === 'sound' ? '#a9dccf' : '#ffffffb0'
  const high = place.height / (look.apart ? 2 : 1)
  const lines: Spot[][] = [[], []]
  for (let at = Math.floor(place.from / step); at * step < place.to + step; at++) {
    const x = at * step
    const seconds = x / place.pxPerSecond
    const ends = [sampleAt(seconds), sampleAt((x + step) / place.pxPerSecond)]
    const found = heard(wave(Math.min(...ends), Math.max(...ends)), clip.channels)
    const louder = loudnessAt(clip, seconds * TICKS_PER_SECOND)
    sidesOf(found, look.apart).forEach(([low, top], lane) => {
      const middle = place.top + high * (lane + 0.5)
      const [up, down] = heightsOf(low * louder, top * louder, look.decibels)
      if (single) {
        lines[lane]?.push({ x, y: middle - ((up || -down) * high) / 2 })
        return
      }
      context.fillStyle = Math.max(top, -low) * louder > 1 ? OVER : plain
      // What is quiet is a thin line on whole pixels, so that it is seen at all.
      const tall = Math.max(1, ((up + down) * high) / 2)
      const y = tall > 2 ? middle - (up * high) / 2 : Math.round(middle - tall / 2)
      context.fillRect(x, y, tall > 2 ? step * 0.7 : step, tall)
    })
  }
  if (!single) return
  context.strokeStyle = context.fillStyle = plain
  for (const line of lines) drawLine(context, line, apart >= MARKED)
}

/** Lowest and highest of each side, or of both together. */
function sidesOf([a, b, c, d]: Peak, apart: boolean): [number, number][] {
  return apart
    ? [
        [a, b],
        [c, d],
      ]
    : [[Math.min(a, c), Math.max(b, d)]]
}

/** How far it goes up and down, 0 to 1; in decibels alike, since they have no sign. */
function heightsOf(low: number, high: number, decibels: boolean): [number, number] {
  if (!decibels) return [shown(Math.max(high, 0), false), shown(Math.min(low, 0), false)]
  const both = shown(Math.max(high, -low), true)
  return [both, both]
}

/** Single samples, joined. */
function drawLine(context: CanvasRenderingContext2D, line: Spot[], marked: boolean) {
  context.beginPath()
  line.forEach(({ x, y }, at) => (at ? context.lineTo(x, y) : context.moveTo(x, y)))
  context.stroke()
  if (marked) for (const { x, y } of line) context.fillRect(x - 1.5, y - 1.5, 3, 3)
}
