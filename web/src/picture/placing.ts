import { isDrawn, type PicturedClip, type Take } from '@/api/types'

export interface Point {
  x: number
  y: number
}

export interface Size {
  width: number
  height: number
}

/** A place whose values stand still; with keys there is none, and the picture offers no handles. */
export interface Placed {
  x: number
  y: number
  across: number
  down: number
  turn: number
  lean: number
  pivot: Point
  fit: 'whole' | 'fill' | 'own'
  mirrored?: boolean
  upsideDown?: boolean
}

export function placedOf(clip: PicturedClip): Placed | null {
  const { position, size, turn, lean, pivot, fit } = clip.place
  if (!Array.isArray(position) || !Array.isArray(size) || !Array.isArray(pivot)) return null
  if (typeof turn !== 'number' || typeof lean !== 'number') return null
  return {
    x: position[0],
    y: position[1],
    across: size[0],
    down: size[1],
    turn,
    lean,
    pivot: { x: pivot[0], y: pivot[1] },
    // What the program draws has a size of its own.
    fit: isDrawn(clip) ? 'own' : fit,
    mirrored: clip.place.mirrored ?? false,
    upsideDown: clip.place.upside_down ?? false,
  }
}

/** The size of a clip's picture in its own pixels; of what the program draws, its `extent`. */
export function pictureSize(
  clip: PicturedClip,
  take: Take | undefined,
  canvas: Size,
  area: Size,
  extent?: [number, number],
): Size | null {
  if (clip.kind === 'solid') return area
  if (clip.kind === 'group' || clip.kind === 'adjustment') return canvas
  if (isDrawn(clip)) return extent ? { width: extent[0], height: extent[1] } : null
  return take?.facts?.picture ?? null
}

function fitFactor(fit: Placed['fit'], picture: Size, canvas: Size): number {
  const across = canvas.width / picture.width
  const down = canvas.height / picture.height
  if (fit === 'own') return 1
  return fit === 'whole' ? Math.min(across, down) : Math.max(across, down)
}

/** The corners on the canvas, clockwise from the top left: pivot, size, lean, turn, position. */
export function cornersOf(placed: Placed, picture: Size, canvas: Size): Point[] {
  const factor = fitFactor(placed.fit, picture, canvas)
  const halfWidth = (picture.width * factor) / 2
  const halfHeight = (picture.height * factor) / 2
  const turn = (placed.turn * Math.PI) / 180
  const lean = Math.tan((placed.lean * Math.PI) / 180)
  const { pivot } = placed
  const flipX = placed.mirrored ? -1 : 1
  const flipY = placed.upsideDown ? -1 : 1
  return [
    [-halfWidth, -halfHeight],
    [halfWidth, -halfHeight],
    [halfWidth, halfHeight],
    [-halfWidth, halfHeight],
  ].map(([x = 0, y = 0]) => {
    const sizedX = (x * flipX - pivot.x) * placed.across
    const sizedY = (y * flipY - pivot.y) * placed.down
    const leanedX = sizedX - lean * sizedY
    return {
      x: canvas.width / 2 + placed.x + pivot.x + leanedX * Math.cos(turn) - sizedY * Math.sin(turn),
      y:
        canvas.height / 2 + placed.y + pivot.y + leanedX * Math.sin(turn) + sizedY * Math.cos(turn),
    }
  })
}

export function middleOf(corners: Point[]): Point {
  const sum = corners.reduce((a, b) => ({ x: a.x + b.x, y: a.y + b.y }), { x: 0, y: 0 })
  return { x: sum.x / corners.length, y: sum.y / corners.length }
}

export interface Guides {
  x: number | null
  y: number | null
}

/**
 * Draw a moved picture to the middle and the edges of the canvas. Returns the correction and the
 * lines it snapped to.
 */
export function snapToCanvas(
  corners: Point[],
  canvas: Size,
  reach: number,
): { by: Point; guides: Guides } {
  const middle = middleOf(corners)
  const xs = corners.map((corner) => corner.x)
  const ys = corners.map((corner) => corner.y)
  const x = nearest([middle.x, Math.min(...xs), Math.max(...xs)], canvas.width, reach)
  const y = nearest([middle.y, Math.min(...ys), Math.max(...ys)], canvas.height, reach)
  return { by: { x: x.by, y: y.by }, guides: { x: x.at, y: y.at } }
}

function nearest(
  [middle = 0, low = 0, high = 0]: number[],
  length: number,
  reach: number,
): { by: number; at: number | null } {
  const pairs: [number, number][] = [
    [middle, length / 2],
    [low, 0],
    [high, length],
  ]
  let best = { by: 0, at: null as number | null }
  let distance = reach
  for (const [from, to] of pairs) {
    if (Math.abs(to - from) < distance) {
      distance = Math.abs(to - from)
      best = { by: to - from, at: to }
    }
  }
  return best
}

/** Degrees from -180 to 180, drawn to multiples of 15 when within two. */
export function snapTurn(degrees: number): number {
  const whole = ((((degrees + 180) % 360) + 360) % 360) - 180
  const step = Math.round(whole / 15) * 15
  return Math.abs(step - whole) < 2 ? step : Math.round(whole * 10) / 10
}

/**
 * A shift drawn to the picture's own axes: what strays from one of them by less than `reach` is left
 * out, so that a picture slides within its cell the way it lies.
 */
export function alongAxes(by: Point, turn: number, reach: number): Point {
  const [cos, sin] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)]
  let along = by.x * cos + by.y * sin
  let across = -by.x * sin + by.y * cos
  if (Math.abs(across) < reach && Math.abs(along) > reach) across = 0
  else if (Math.abs(along) < reach && Math.abs(across) > reach) along = 0
  return { x: along * cos - across * sin, y: along * sin + across * cos }
}

/** Corners of a square of 2 canvas pixels around the middle of a clip: its own measure in small. */
export function unitCorners(placed: Placed, area: Size): Point[] {
  return cornersOf({ ...placed, fit: 'own' }, { width: 2, height: 2 }, area)
}
