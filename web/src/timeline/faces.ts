import type { Clip, Take } from '@/api/types'
import { isPaced, TICKS_PER_SECOND } from '@/api/types'
import { pointsOf, sourceOffset } from '@/motion/speed'
import { fileUrl } from '@/stores/library'
import type { WaveLook } from '@/stores/waves'
import { arrived, awaits, RATE, waveOf } from '@/timeline/peaks'
import { drawWave } from '@/timeline/waves'

const TOGETHER: WaveLook = { apart: false, decibels: false }

/** Strips that are drawn on clips, loaded once and shared. */
const strips = new Map<string, HTMLImageElement>()

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

export interface Window {
  /** First and last pixel of the clip that can be seen, and the scale. */
  from: number
  to: number
  pxPerSecond: number
  height: number
  /** Ticks by which the source is being slipped. */
  slip: number
  /** How its sound is drawn; both sides together if nothing is said. */
  look?: WaveLook
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
  drawPictures(context, clip, take, seen, redraw)
  if ((clip.kind === 'video' || clip.kind === 'sound') && take.has_peaks) {
    const wave = waveOf(take, RATE / seen.pxPerSecond, redraw)
    const top = clip.kind === 'sound' ? 0 : seen.height * 0.68
    const place = { ...seen, top, height: seen.height - top }
    const sampleAt = (seconds: number) =>
      (sourceAt(clip, seconds, seen.slip) / TICKS_PER_SECOND) * RATE
    if (wave) drawWave(context, clip, wave, place, sampleAt, seen.look ?? TOGETHER)
  }
}

/** Draw the pictures of the part that can be seen, from the clip's start at 0. */
export function drawPictures(
  context: CanvasRenderingContext2D,
  clip: Clip,
  take: Take,
  seen: Window,
  redraw: () => void,
) {
  if (clip.kind === 'sound' || !take.strip) return
  const image = stripOf(take, redraw)
  if (image) drawStrip(context, clip, take.strip, image, seen)
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
