import type { Clip, Take } from '@/api/types'
import { isPaced, TICKS_PER_SECOND } from '@/api/types'
import { pointsOf, sourceOffset } from '@/motion/speed'
import { needBytes } from '@/api/client'
import { fileUrl } from '@/stores/library'

/** What is drawn on clips: strips and waveforms, loaded once and shared. */
const strips = new Map<string, HTMLImageElement>()
const peaks = new Map<string, Int8Array | null>()
const PEAKS_A_SECOND = 100

/** Those who draw anew once something is loaded: several clips may show one take. */
const waiting = new Map<string, Set<() => void>>()

function awaits(name: string, redraw: () => void) {
  waiting.set(name, (waiting.get(name) ?? new Set()).add(redraw))
}

function arrived(name: string) {
  const all = waiting.get(name)
  waiting.delete(name)
  all?.forEach((redraw) => redraw())
}

function stripOf(take: Take, redraw: () => void): HTMLImageElement | null {
  const name = `strip ${take.id}`
  const known = strips.get(take.id)
  if (known?.complete && known.naturalWidth) return known
  awaits(name, redraw)
  if (known) return null
  const image = new Image()
  image.onload = () => arrived(name)
  image.onerror = () => strips.delete(take.id)
  image.src = fileUrl(take, 'strip.jpg')
  strips.set(take.id, image)
  return null
}

function peaksOf(take: Take, redraw: () => void): Int8Array | null {
  const name = `peaks ${take.id}`
  const known = peaks.get(take.id)
  if (known) return known
  awaits(name, redraw)
  if (known === null) return null
  peaks.set(take.id, null)
  needBytes(fileUrl(take, 'peaks.i8'))
    .then((bytes) => {
      peaks.set(take.id, new Int8Array(bytes))
      arrived(name)
    })
    .catch(() => peaks.delete(take.id))
  return null
}

export interface Window {
  /** First and last pixel of the clip that can be seen, and the scale. */
  from: number
  to: number
  pxPerSecond: number
  height: number
  /** Ticks by which the source is being slipped. */
  slip: number
}

/** Tick of the source at seconds from the clip's start, as it runs. */
function sourceAt(clip: Clip, seconds: number, slip: number): number {
  if (!isPaced(clip)) return 0
  const soft = clip.speed?.soft ?? true
  const passed = sourceOffset(pointsOf(clip.speed), soft, seconds * TICKS_PER_SECOND)
  return (clip.source_in ?? 0) + slip + passed
}

/** Draw the part of a clip that can be seen. */
export function drawFace(
  canvas: HTMLCanvasElement,
  clip: Clip,
  take: Take,
  seen: Window,
  redraw: () => void,
) {
  const density = window.devicePixelRatio || 1
  const width = Math.max(1, seen.to - seen.from)
  canvas.width = Math.round(width * density)
  canvas.height = Math.round(seen.height * density)
  canvas.style.left = `${seen.from}px`
  canvas.style.width = `${width}px`
  const context = canvas.getContext('2d')
  if (!context) return
  context.scale(density, density)
  context.translate(-seen.from, 0)
  if (clip.kind !== 'sound' && take.strip) {
    const image = stripOf(take, redraw)
    if (image) drawStrip(context, clip, take.strip, image, seen)
  }
  if ((clip.kind === 'video' || clip.kind === 'sound') && take.has_peaks) {
    const data = peaksOf(take, redraw)
    const top = clip.kind === 'sound' ? 0 : seen.height * 0.68
    if (data) drawWave(context, clip, data, seen, top)
  }
}

function drawStrip(
  context: CanvasRenderingContext2D,
  clip: Clip,
  strip: NonNullable<Take['strip']>,
  image: HTMLImageElement,
  seen: Window,
) {
  const wide = (strip.width / strip.height) * seen.height
  const first = Math.floor(seen.from / wide)
  for (let tile = first; tile * wide < seen.to; tile++) {
    const seconds = (tile * wide) / seen.pxPerSecond
    const tick = clip.kind === 'video' ? sourceAt(clip, seconds, seen.slip) : 0
    const number = Math.min(strip.count - 1, Math.max(0, Math.floor(tick / strip.step)))
    const x = (number % strip.columns) * strip.width
    const y = Math.floor(number / strip.columns) * strip.height
    context.drawImage(image, x, y, strip.width, strip.height, tile * wide, 0, wide, seen.height)
  }
}

function drawWave(
  context: CanvasRenderingContext2D,
  clip: Clip,
  data: Int8Array,
  seen: Window,
  top: number,
) {
  const peakAt = (x: number) =>
    (sourceAt(clip, x / seen.pxPerSecond, seen.slip) / TICKS_PER_SECOND) * PEAKS_A_SECOND
  const half = (seen.height - top) / 2
  const middle = top + half
  context.fillStyle = clip.kind === 'sound' ? '#a9dccf' : '#ffffffb0'
  for (let x = Math.floor(seen.from); x < seen.to; x += 2) {
    const [one, other] = [peakAt(x), peakAt(x + 2)]
    const from = Math.max(0, Math.floor(Math.min(one, other)))
    const to = Math.max(from + 1, Math.floor(Math.max(one, other)))
    let low = 0
    let high = 0
    for (let at = from; at < to; at++) {
      low = Math.min(low, data[at * 2] ?? 0)
      high = Math.max(high, data[at * 2 + 1] ?? 0)
    }
    const up = (high / 127) * half
    const down = (-low / 127) * half
    context.fillRect(x, middle - up, 1.4, Math.max(1, up + down))
  }
}
