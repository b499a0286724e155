/** Seconds by which pieces that join may lie apart: less than a frame, more than a rounding. */
const SEAM = 0.004

/** Up to where, in seconds, all is there from a moment on; the moment itself where nothing is. */
export function reachFrom(ranges: TimeRanges, at: number): number {
  for (let part = 0; part < ranges.length; part += 1) {
    if (ranges.start(part) <= at + SEAM && ranges.end(part) > at) return ranges.end(part)
  }
  return at
}

/** Where something is there again behind a moment at which nothing is; null if that is nowhere. */
export function nextRange(ranges: TimeRanges, at: number): number | null {
  for (let part = 0; part < ranges.length; part += 1) {
    if (ranges.start(part) > at) return ranges.start(part)
  }
  return null
}
