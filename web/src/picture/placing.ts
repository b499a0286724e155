import { type Map6, isDrawn, type PicturedClip, type Take } from '@/api/types'
import { changedAt, isAxes, isKeyed, valueAt } from '@/motion/keys'

export interface Point {
  x: number
  y: number
}

/** A point of a line as it is drawn; with a pen, how strongly that was pressed there, 0..1. */
export interface DrawnPoint extends Point {
  pressure?: number
}

/** At most as many points as a stroke may have. */
export function thinned<P extends Point>(points: P[]): P[] {
  const every = Math.ceil(points.length / 3000)
  return points.filter((_, index) => index % every === 0 || index === points.length - 1)
}

export interface Size {
  width: number
  height: number
}

/** A place at one moment, its keys read. */
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

type Pair = [number, number]

/** Where a clip's own place puts it at a tick counted from its start. */
export function placedOf(clip: PicturedClip, tick: number): Placed {
  const place = clip.place
  const now = <T>(prop: unknown, rest: T) => (valueAt(prop, tick) as T | undefined) ?? rest
  const [x, y] = now<Pair>(place?.position, [0, 0])
  const [across, down] = now<Pair>(place?.size, [1, 1])
  const [pivotX, pivotY] = now<Pair>(place?.pivot, [0, 0])
  return {
    x,
    y,
    across,
    down,
    turn: now(place?.turn, 0),
    lean: now(place?.lean, 0),
    pivot: { x: pivotX, y: pivotY },
    // What the program draws has a size of its own.
    fit: isDrawn(clip) ? 'own' : (place?.fit ?? 'whole'),
    mirrored: place?.mirrored ?? false,
    upsideDown: place?.upside_down ?? false,
  }
}

/**
 * Values of a clip with another pivot, the picture staying where it is at a tick: its position goes
 * along, with all its keys if it has some.
 */
export function withPivot(clip: PicturedClip, pivot: Pair, tick: number): Record<string, unknown> {
  const now = placedOf(clip, tick)
  const [dx, dy] = [now.pivot.x - pivot[0], now.pivot.y - pivot[1]]
  const shown = onCanvas(now, { x: dx, y: dy })
  const [x, y] = [dx - shown.x, dy - shown.y]
  return {
    'place/pivot': changedAt(clip.place?.pivot, tick, pivot),
    'place/position': shifted(clip.place?.position ?? [0, 0], [x, y]),
  }
}

/** A position with all its keys moved. */
function shifted(position: unknown, [x, y]: Pair): unknown {
  const moved = (value: unknown): unknown =>
    Array.isArray(value)
      ? [hundredths(Number(value[0]) + x), hundredths(Number(value[1]) + y)]
      : hundredths(Number(value) + x)
  if (isAxes(position)) {
    return { across: shifted(position.across, [x, 0]), down: shifted(position.down, [y, 0]) }
  }
  return isKeyed(position)
    ? { keys: position.keys.map((key) => ({ ...key, value: moved(key.value) })) }
    : moved(position)
}

const hundredths = (value: number) => Math.round(value * 100) / 100

/** What a shift within the layer comes to on the canvas: sized, leaned, turned. */
function onCanvas(placed: Placed, { x, y }: Point): Point {
  const turn = (placed.turn * Math.PI) / 180
  const down = y * placed.down
  const across = x * placed.across - Math.tan((placed.lean * Math.PI) / 180) * down
  return {
    x: across * Math.cos(turn) - down * Math.sin(turn),
    y: across * Math.sin(turn) + down * Math.cos(turn),
  }
}

/** The shift within the layer that comes to one on the canvas. */
function withinLayer(placed: Placed, { x, y }: Point): Point {
  const turn = (placed.turn * Math.PI) / 180
  const level = x * Math.cos(turn) + y * Math.sin(turn)
  const down = y * Math.cos(turn) - x * Math.sin(turn)
  const across = level + Math.tan((placed.lean * Math.PI) / 180) * down
  return { x: across / (placed.across || 1), y: down / (placed.down || 1) }
}

/** With its pivot moved on the canvas, the picture staying where it is. */
export function pivotMoved(placed: Placed, by: Point): Placed {
  const own = withinLayer(placed, by)
  const pivot = { x: placed.pivot.x + own.x, y: placed.pivot.y + own.y }
  const back = onCanvas(placed, own)
  return { ...placed, pivot, x: placed.x + back.x - own.x, y: placed.y + back.y - own.y }
}

/**
 * A shift so that a point comes to lie on one of some spots, if it comes within reach of it; where
 * they lie close together, of less.
 */
export function drawnTo(point: Point, by: Point, spots: Point[], reach: number): Point {
  const off = (spot: Point) => Math.hypot(point.x + by.x - spot.x, point.y + by.y - spot.y)
  const nearest = spots.reduce<Point | null>(
    (best, spot) => (best && off(best) <= off(spot) ? best : spot),
    null,
  )
  const others = spots.filter((spot) => spot !== nearest)
  const apart = nearest ? Math.min(...others.map((spot) => distance(spot, nearest))) : 0
  if (!nearest || off(nearest) > Math.min(reach, apart / 3)) return by
  return { x: nearest.x - point.x, y: nearest.y - point.y }
}

export const distance = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y)

/** Corners, middles of the sides and the middle of a picture, from its four corners. */
export function nineSpots(corners: Point[]): Point[] {
  const between = (a: Point, b: Point) => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 })
  const sides = corners.map((corner, at) => between(corner, corners[(at + 1) % 4] ?? corner))
  const [a, , c] = corners
  return [...corners, ...sides, ...(a && c ? [between(a, c)] : [])]
}

/** Six numbers of a map of the plane: x' = a x + c y + e, y' = b x + d y + f. */
export type { Map6 }
export const STILL: Map6 = [1, 0, 0, 1, 0, 0]

export function mapped([a, b, c, d, e, f]: Map6, { x, y }: Point): Point {
  return { x: a * x + c * y + e, y: b * x + d * y + f }
}

/** The way back of a shift: what a shift on the screen is before the map. */
export function unmappedShift([a, b, c, d]: Map6, { x, y }: Point): Point {
  const area = a * d - b * c || 1
  return { x: (x * d - y * c) / area, y: (y * a - x * b) / area }
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
  if (clip.kind === 'group' || clip.kind === 'mouth') return clip.canvas ?? canvas
  if (clip.kind === 'multicam' || clip.kind === 'adjustment') return canvas
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
  const { pivot } = placed
  const flipX = placed.mirrored ? -1 : 1
  const flipY = placed.upsideDown ? -1 : 1
  return [
    [-halfWidth, -halfHeight],
    [halfWidth, -halfHeight],
    [halfWidth, halfHeight],
    [-halfWidth, halfHeight],
  ].map(([x = 0, y = 0]) => {
    const shown = onCanvas(placed, { x: x * flipX - pivot.x, y: y * flipY - pivot.y })
    return {
      x: canvas.width / 2 + placed.x + pivot.x + shown.x,
      y: canvas.height / 2 + placed.y + pivot.y + shown.y,
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

/** Lines that pictures are drawn to, in canvas pixels. */
export interface Lines {
  x: number[]
  y: number[]
}

/** Edges, thirds and middles of the canvas. */
export function linesOfCanvas({ width, height }: Size): Lines {
  const parts = (length: number) => [0, length / 3, length / 2, (2 * length) / 3, length]
  return { x: parts(width), y: parts(height) }
}

/** Edges and middle of another layer. */
export function linesOfLayer(corners: Point[]): Lines {
  const [xs, ys] = [corners.map(({ x }) => x), corners.map(({ y }) => y)]
  const three = (all: number[]) => {
    const [low, high] = [Math.min(...all), Math.max(...all)]
    return [low, (low + high) / 2, high]
  }
  return { x: three(xs), y: three(ys) }
}

/**
 * Draw a moved picture to lines, by its middle or its edges; its middle to the middle of the canvas
 * rather than to anything else as near. Returns the correction and the lines it snapped to.
 */
export function snapTo(
  corners: Point[],
  lines: Lines,
  reach: number,
): { by: Point; guides: Guides } {
  const own = linesOfLayer(corners)
  const x = nearest(own.x, lines.x, reach)
  const y = nearest(own.y, lines.y, reach)
  return { by: { x: x.by, y: y.by }, guides: { x: x.at, y: y.at } }
}

function nearest(own: number[], lines: number[], reach: number): { by: number; at: number | null } {
  let best = { by: 0, at: null as number | null }
  let distance = reach
  const [low = 0, middle = 0, high = 0] = own
  for (const from of [middle, low, high]) {
    for (const to of lines) {
      if (Math.abs(to - from) < distance - 1e-6) {
        distance = Math.abs(to - from)
        best = { by: to - from, at: to }
      }
    }
  }
  return best
}

/** Degrees from -180 to 180, drawn to multiples of 15 when within so many. */
export function snapTurn(degrees: number, reach = 2): number {
  const whole = ((((degrees + 180) % 360) + 360) % 360) - 180
  const step = Math.round(whole / 15) * 15
  return Math.abs(step - whole) < reach ? step : Math.round(whole * 10) / 10
}

/** Degrees of lean, upright when within so many, never so far that the picture is torn apart. */
export function snapLean(degrees: number, reach = 2): number {
  if (Math.abs(degrees) < reach) return 0
  return Math.round(Math.min(80, Math.max(-80, degrees)) * 10) / 10
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
