import type { Size } from '@/picture/placing'

/** Even size of the same shape whose longer side is `side`. */
export function sizeAt(canvas: Size, side: number): Size {
  const factor = Math.min(1, side / Math.max(canvas.width, canvas.height))
  const even = (length: number) => Math.max(2, Math.round((length * factor) / 2) * 2)
  return { width: even(canvas.width), height: even(canvas.height) }
}
