import type { Clip, TextClip, Track } from '@/api/types'
import { TICKS_PER_SECOND } from '@/api/types'
import { valueAt } from '@/motion/keys'

/** Letters a second that most people read without haste, and that few can follow. */
export const EASY = 15
export const HASTY = 20

export const isText = (clip: Clip): clip is TextClip => clip.kind === 'text'

export const captionTrack = (tracks: readonly Track[]) =>
  tracks.find((track) => track.captions) ?? null

/** What a text says first. */
export const firstWords = (clip: TextClip) => (valueAt(clip.text, 0) as string | undefined) ?? ''

/** Letters a second, without spaces. */
export function pace(clip: TextClip): number {
  const letters = firstWords(clip).replace(/\s/g, '').length
  return letters / Math.max(0.04, clip.length / TICKS_PER_SECOND)
}

/** The caption that is said at a tick, or else the next one. */
export function captionAt(clips: readonly TextClip[], tick: number): TextClip | null {
  return clips.find((clip) => tick < (clip.start ?? 0) + clip.length) ?? null
}
