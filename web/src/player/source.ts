import { needBytes } from '@/api/client'
import type { Source } from '@/api/source'
import type { Step } from '@/api/types'
import { useProject } from '@/stores/project'
import { unpacked, type Measured, type ScopesWanted } from './measured'

export type { Source }
export type PieceKind = 'picture' | 'sound'

export const PICTURE_TYPE = 'video/mp4; codecs="avc1.42C028"'
/** How sound may be coded, the best first: FLAC joins to the sample, AAC is what every phone plays. */
export const SOUNDS = [
  { coding: 'flac', type: 'audio/mp4; codecs="flac"' },
  { coding: 'aac', type: 'audio/mp4; codecs="mp4a.40.2"' },
] as const

/** What a piece is asked for with. */
export interface PieceAsk {
  longSide: number
  lane: string
  turn: number
  /** Of sound. */
  coding: (typeof SOUNDS)[number]['coding']
  signal: AbortSignal
}

/** What a still is asked for with. */
export interface StillAsk {
  longSide: number
  lane: string
  turn: number
  edit?: Step | null
  /** Id of a zone that is shown as what it lets through. */
  matte?: string
  /** Id of a clip that is shown at its neighbouring keys too. */
  onion?: string
  scopes?: ScopesWanted | null
  signal: AbortSignal
}

export interface Still {
  /** Empty if the server dropped the question, since a newer one came. */
  blob: Blob
  measured: Measured | null
}

export async function fetchStill(source: Source, frame: number, ask: StillAsk): Promise<Still> {
  const trial = ask.edit ? [useProject().whole(ask.edit)] : []
  const question = {
    frame,
    long_side: ask.longSide,
    lane: ask.lane,
    turn: ask.turn,
    edits: [...(source.pending ?? []), ...trial],
    matte: ask.matte ?? '',
    onion: ask.onion ?? '',
    scopes: ask.scopes ?? null,
  }
  const init = {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(question),
    signal: ask.signal,
  }
  const url = `${source.base}/still?${new URLSearchParams(source.query)}`
  const bytes = await needBytes(url, init, true)
  const type = 'image/jpeg'
  if (!ask.scopes || !bytes.byteLength) return { blob: new Blob([bytes], { type }), measured: null }
  const { jpeg, measured } = unpacked(bytes)
  return { blob: new Blob([jpeg], { type }), measured }
}

export function fetchPiece(
  source: Source,
  kind: PieceKind,
  first: number,
  last: number,
  ask: PieceAsk,
): Promise<ArrayBuffer> {
  const query = new URLSearchParams({
    ...source.query,
    first: String(first),
    last: String(last),
    long_side: String(ask.longSide),
    lane: ask.lane,
    turn: String(ask.turn),
    ...(kind === 'sound' && { coding: ask.coding }),
  })
  return needBytes(`${source.base}/${kind}?${query}`, { signal: ask.signal })
}
