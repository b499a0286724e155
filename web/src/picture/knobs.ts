import type { Point } from './placing'

/** Pixels from the border of the window in which a knob stands, and between two that stand there. */
const MARGIN = 14
const APART = 34
/** Places beside each other that are tried. */
const TRIES = 5

type Knob = Point & { id: string }

/**
 * Knobs that lie beyond the window, brought to its border on their way from the middle of what they
 * belong to, one beside the other; those within stay.
 */
export function withinWindow<T extends Knob>(
  knobs: readonly T[],
  middle: Point,
  width: number,
  height: number,
): T[] {
  const from = { x: clamped(middle.x, width), y: clamped(middle.y, height) }
  const placed: T[] = []
  for (const knob of knobs) {
    placed.push(isWithin(knob, width, height) ? knob : atBorder(knob, from, width, height, placed))
  }
  return placed
}

function atBorder<T extends Knob>(
  knob: T,
  from: Point,
  width: number,
  height: number,
  placed: readonly T[],
): T {
  const share = Math.min(shareTo(from.x, knob.x, width), shareTo(from.y, knob.y, height))
  const spot = { x: from.x + (knob.x - from.x) * share, y: from.y + (knob.y - from.y) * share }
  const upright = Math.min(spot.y, height - spot.y) > Math.min(spot.x, width - spot.x)
  const near = () => placed.some((one) => Math.hypot(one.x - spot.x, one.y - spot.y) < APART - 1)
  // Towards the side on which there is more room.
  const way = (upright ? spot.y < height / 2 : spot.x < width / 2) ? APART : -APART
  for (let tries = 0; tries < TRIES && near(); tries += 1) {
    if (upright) spot.y += way
    else spot.x += way
  }
  return { ...knob, x: clamped(spot.x, width), y: clamped(spot.y, height) }
}

const clamped = (at: number, side: number) => Math.min(Math.max(at, MARGIN), side - MARGIN)

const isWithin = ({ x, y }: Point, width: number, height: number) =>
  clamped(x, width) === x && clamped(y, height) === y

/** Share of the way from one place to another that lies within the window, along one axis. */
function shareTo(from: number, to: number, side: number): number {
  const border = clamped(to, side)
  return border === to ? 1 : (border - from) / (to - from)
}
