import { needBytes } from '@/api/client'
import type { FrameRate, Step } from '@/api/types'
import { useProject } from '@/stores/project'

/** Something that can be watched: a revision of a project, or a take. */
export interface Source {
  /** Beginning of the addresses of its stills and pieces. */
  base: string
  /** What else an address says: the open group, the speed of playing. */
  query?: Record<string, string>
  frames: number
  rate: FrameRate
}

export type PieceKind = 'picture' | 'sound'

export const PICTURE_TYPE = 'video/mp4; codecs="avc1.42C028"'
export const SOUND_TYPE = 'audio/mp4; codecs="flac"'

export async function fetchStill(
  source: Source,
  frame: number,
  ask: { longSide: number; lane: string; turn: number; edit?: Step | null; signal: AbortSignal },
): Promise<Blob> {
  const edit = ask.edit ? useProject().whole(ask.edit) : null
  const bytes = await needBytes(`${source.base}/still?${new URLSearchParams(source.query)}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({
      frame,
      long_side: ask.longSide,
      lane: ask.lane,
      turn: ask.turn,
      edit,
    }),
    signal: ask.signal,
  })
  return new Blob([bytes], { type: 'image/jpeg' })
}

export function fetchPiece(
  source: Source,
  kind: PieceKind,
  first: number,
  last: number,
  ask: { longSide: number; lane: string; turn: number; signal: AbortSignal },
): Promise<ArrayBuffer> {
  const query = new URLSearchParams({
    ...source.query,
    first: String(first),
    last: String(last),
    long_side: String(ask.longSide),
    lane: ask.lane,
    turn: String(ask.turn),
  })
  return needBytes(`${source.base}/${kind}?${query}`, { signal: ask.signal })
}
