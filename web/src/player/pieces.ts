/** Which frames the next piece holds: the first begins at the playhead, later ones lie on a grid, so
 * that pieces made once serve again wherever playing starts. */
export function nextPiece(
  from: number,
  frames: number,
  grid: number,
): { first: number; last: number } {
  let last = (Math.floor(from / grid) + 1) * grid
  if (last - from < grid / 3) last += grid
  return { first: from, last: Math.min(last, frames) }
}

/** Frames of a piece of pictures: half a second. */
export function gridOf(framesPerSecond: number): number {
  return Math.max(2, Math.round(framesPerSecond / 2))
}

/** Frames of a piece of sound: shorter, for a change is heard from where a piece begins. */
export function soundGridOf(framesPerSecond: number): number {
  return Math.max(1, Math.round(framesPerSecond / 6))
}
