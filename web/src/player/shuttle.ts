import type { Source } from './source'

export const PACES = [1, 2, 4, 8]

/** The speed after one more press towards `way` (1 or -1): faster that way, else slowly round. */
export function nextPace(now: number, playing: boolean, way: 1 | -1): number {
  if (!playing || Math.sign(now) !== way) return way
  return (PACES[PACES.indexOf(Math.abs(now)) + 1] ?? Math.abs(now)) * way
}

/** How a source plays at a speed: what is fetched, where it begins, and which frame is shown. */
export function shuttled(source: Source, speed: number, frame: number) {
  if (speed === 1) return { source, start: frame, shown: (number: number) => number }
  const frames = Math.floor(source.frames / Math.abs(speed))
  const last = source.frames - 1
  const asked: Source = { ...source, frames, query: { ...source.query, speed: String(speed) } }
  const shown = (number: number) =>
    Math.min(last, Math.max(0, speed > 0 ? number * speed : last - number * -speed))
  const start = Math.floor(speed > 0 ? frame / speed : (last - frame) / -speed)
  return { source: asked, start: Math.min(start, Math.max(0, frames - 1)), shown }
}
