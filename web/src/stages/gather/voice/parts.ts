/** Where the film was, in seconds, at a second of the recording. */
export interface Moment {
  recorded: number
  film: number
}

/** A part of a recording as it is laid: from a second of it on, at a frame of the film. */
export interface SpokenPart {
  from: number
  frame: number
  frames: number
}

/** Seconds by which a recording may run ahead of the film within one part: less than a frame. */
const STALLED = 0.03
/** Seconds left out between two parts from which on it is told. */
const NOTED = 0.1
/** Seconds that the film must have gone on for a moment to count. */
const MOVED = 0.002

interface Run {
  offsets: number[]
  low: number
  high: number
}

const middle = (numbers: number[]) =>
  [...numbers].sort((a, b) => a - b)[Math.floor(numbers.length / 2)] ?? 0

/** Stretches in which film and recording went on together. */
function runsOf(moments: Moment[]): Run[] {
  const runs: Run[] = []
  let before: Moment | null = null
  for (const moment of moments) {
    const moved = before !== null && moment.film > before.film + MOVED
    before = moment
    if (!moved) continue
    const offset = moment.recorded - moment.film
    const run = runs.at(-1)
    if (run && Math.abs(offset - (run.offsets[0] ?? 0)) < STALLED) {
      run.offsets.push(offset)
      run.high = moment.film
    } else {
      runs.push({ offsets: [offset], low: moment.film, high: moment.film })
    }
  }
  return runs.filter((run) => run.offsets.length > 1)
}

/**
 * What of a recording belongs to which frames of the film. While the picture stood still nothing of the
 * film passed, so what was said then is in no part; the next begins where the film went on.
 *
 * `delay` is how much later, in seconds, a sound is recorded than it was made; `length` that of the
 * recording.
 */
export function spokenParts(
  moments: Moment[],
  fps: number,
  delay: number,
  length: number,
): SpokenPart[] {
  const parts: SpokenPart[] = []
  const runs = runsOf(moments)
  for (const [at, run] of runs.entries()) {
    const offset = middle(run.offsets) + delay
    const last = parts.at(-1)
    const frame = last ? last.frame + last.frames : Math.ceil(run.low * fps - 1e-6)
    const heard = Math.floor((length - offset) * fps + 1e-6)
    const end = at === runs.length - 1 ? heard : Math.min(heard, Math.floor(run.high * fps))
    const from = frame / fps + offset
    if (end > frame && from >= 0) parts.push({ from, frame, frames: end - frame })
  }
  return parts
}

/** How often the film stood still for so long that somebody should know. */
export function stallsIn(parts: SpokenPart[], fps: number): number {
  return parts.filter((part, at) => {
    const before = parts[at - 1]
    return before && part.from - (before.from + before.frames / fps) > NOTED
  }).length
}
