import type { Schemas } from '@/api/client'
import { hasMedia, TICKS_PER_SECOND, type MulticamClip } from '@/api/types'
import { steadySpeed } from '@/motion/speed'

type Found = Schemas['Found']

/** A file of an angle: where its own tick 0 lies in the time of the multicam clip. */
export interface AngleFile {
  angle: number
  file: number
  media: string
  name: string
  at: number
  length: number
  /** Where its clip begins, at which tick of its own, and how fast it runs; none if that changes. */
  start: number
  from: number
  pace: number | null
  /** The tick of its own at which its first marker stands, if it has one. */
  marker: number | null
}

/** All files of all angles, in order. */
export function filesOf(clip: MulticamClip): AngleFile[] {
  return clip.tracks.flatMap((track, angle) => {
    const group = track.clips?.[0]
    if (group?.kind !== 'group') return []
    const by = (group.start ?? 0) - (group.source_in ?? 0)
    const inner = group.tracks.flatMap((row) => row.clips ?? [])
    return inner.flatMap((one, file) => {
      if (!hasMedia(one) || one.kind === 'still') return []
      const start = by + (one.start ?? 0)
      const from = one.source_in ?? 0
      const pace = steadySpeed(one.speed)
      const marks = (one.markers ?? []).filter(({ beat }) => !beat).map(({ at }) => at)
      const marker = marks.length ? Math.round(from + Math.min(...marks) * (pace ?? 1)) : null
      const { media, name = '', source_length: length } = one
      return [{ angle, file, media, name, at: start - from, length, start, from, pace, marker }]
    })
  })
}

/** How one was lined up: by what and how surely, or that nothing was found. */
export interface Lined {
  way: string
  /** 0..1. */
  confidence: number
  /** Ticks by which it was moved by hand since. */
  off: number
  /** Milliseconds that its clock gains in a minute, where that can be told. */
  gains: number
}

/** As a share of one, by which a clock may differ; what runs further off has a speed of its own. */
const MOST_DRIFT = 0.002

/** The drift that is taken out of a file. */
export function takenOut(file: AngleFile): number {
  const drift = (file.pace ?? 0) - 1
  return Math.abs(drift) <= MOST_DRIFT ? drift : 0
}

export const gainsOf = (drift: number) => Math.round(drift * 600_000) / 10

const SAME = TICKS_PER_SECOND / 20_000

/** What was found of a file, held against where it lies beside the first one now. */
export function linedOf(
  file: AngleFile,
  files: AngleFile[],
  found: readonly Found[],
): Lined | null {
  const of = (one: AngleFile) =>
    found.find((other) => other.angle === one.angle && other.file === one.file)
  const mine = of(file)
  if (!mine) return null
  if (mine.at === null || mine.at === undefined) return { way: '', confidence: 0, off: 0, gains: 0 }
  const first = found.find(({ way }) => way === 'first')
  const stays = files.find((one) => one.angle === first?.angle && one.file === first?.file)
  if (!first || !stays) return null
  // Where its clock runs otherwise it lies right at one moment of it.
  const middle = mine.middle ?? 0
  const at = file.start + (middle - file.from) / (file.pace || 1) - middle
  const off = at - stays.at - (mine.at - (first.at ?? 0))
  return {
    way: mine.way ?? '',
    confidence: mine.confidence ?? 0,
    off: Math.abs(off) < SAME ? 0 : off,
    gains: gainsOf(mine.drift ?? 0),
  }
}
