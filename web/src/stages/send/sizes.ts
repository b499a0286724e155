import type { ExportSettings } from '@/api/types'
import type { Size } from '@/picture/placing'

/** Shapes that files often have; the project's own is always there. */
export const SHAPES: readonly Size[] = [
  { width: 9, height: 16 },
  { width: 4, height: 5 },
  { width: 1, height: 1 },
  { width: 16, height: 9 },
]

/** Pixels of longer sides that are offered below the full size. */
const SIDES = [1920, 1280, 960, 640, 480]

/** Even size of the same shape whose longer side is `side`. */
export function sizeAt(canvas: Size, side: number): Size {
  const factor = Math.min(1, side / Math.max(canvas.width, canvas.height))
  const even = (length: number) => Math.max(2, Math.round((length * factor) / 2) * 2)
  return { width: even(canvas.width), height: even(canvas.height) }
}

/** The canvas in a file's shape, in its full size: as wide at its narrow side as the canvas is. */
function fullSize(canvas: Size, shape: Size | null | undefined): Size {
  if (!shape) return canvas
  const factor = Math.min(canvas.width, canvas.height) / Math.min(shape.width, shape.height)
  return { width: shape.width * factor, height: shape.height * factor }
}

/** Pixels of a file. */
export function sizeOf(canvas: Size, settings: ExportSettings): Size {
  const full = fullSize(canvas, settings.shape)
  return sizeAt(full, settings.long_side || Math.max(full.width, full.height))
}

/** Sizes to choose from; 0 is the full one. */
export function sizesOf(canvas: Size, settings: ExportSettings): ({ id: number } & Size)[] {
  const full = fullSize(canvas, settings.shape)
  const longest = Math.max(full.width, full.height)
  const own = settings.long_side ?? 0
  const sides = new Set([...SIDES, own].filter((side) => side && side < longest))
  const falling = [...sides].sort((a, b) => b - a)
  const all = [0, ...falling]
  // One that is no smaller than the full size is the full size.
  if (own && own >= longest) all[0] = own
  return all.map((id) => ({ id, ...sizeAt(full, id || longest) }))
}
