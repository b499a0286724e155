import type { Schemas } from '@/api/client'
import { hasMedia, TICKS_PER_SECOND, type MulticamClip } from '@/api/types'

type Found = Schemas['Found']

/** A file of an angle: where its own tick 0 lies in the time of the multicam clip. */
export interface AngleFile {
  angle: number
  file: number
  media: string
  name: string
  at: number
  length: number
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
      const at = by + (one.start ?? 0) - (one.source_in ?? 0)
      return [
        { angle, file, media: one.media, name: one.name ?? '', at, length: one.source_length },
      ]
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
  const off = file.at - stays.at - (mine.at - (first.at ?? 0))
  return {
    way: mine.way ?? '',
    confidence: mine.confidence ?? 0,
    off: Math.abs(off) < SAME ? 0 : off,
    gains: Math.round((mine.drift ?? 0) * 600_000) / 10,
  }
}
