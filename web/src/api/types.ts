import type { Schemas } from './client'

export type Document = Schemas['Document']
export type Track = Schemas['Track']
export type Clip = NonNullable<Track['clips']>[number]
export type VideoClip = Schemas['VideoClip']
export type StillClip = Schemas['StillClip']
export type SoundClip = Schemas['SoundClip']
export type SolidClip = Schemas['SolidClip']
export type SequenceClip = Schemas['SequenceClip']
export type GroupClip = Schemas['GroupClip']
export type MulticamClip = Schemas['MulticamClip']
export type MouthClip = Schemas['MouthClip']
export type MouthTurn = Schemas['Turn']
/** What holds tracks of a time of their own. */
export type HoldingClip = GroupClip | MulticamClip | MouthClip
export type TextClip = Schemas['TextClip']
export type ShapeClip = Schemas['ShapeClip']
export type AdjustmentClip = Schemas['AdjustmentClip']
/** Drawn by the program: they have no file behind them. */
export type DrawnClip = TextClip | ShapeClip
export type PicturedClip =
  | VideoClip
  | StillClip
  | SolidClip
  | SequenceClip
  | GroupClip
  | MulticamClip
  | MouthClip
  | TextClip
  | ShapeClip
  | AdjustmentClip
export type Strip = NonNullable<Track['strip']>
export type FilmStrip = NonNullable<Document['strip']>
export type Insert = NonNullable<FilmStrip['chain']>[number]
export type Mask = NonNullable<PicturedClip['masks']>[number]
export type Effect = NonNullable<PicturedClip['effects']>[number]
export type LayerKey = NonNullable<PicturedClip['key']>
export type Fill = SolidClip['fill']
export type RetouchedClip = VideoClip | StillClip | SequenceClip
export const isRetouched = (clip: Clip | null): clip is RetouchedClip =>
  clip?.kind === 'video' || clip?.kind === 'still' || clip?.kind === 'sequence'
export type RetouchStroke = NonNullable<StillClip['strokes']>[number]
export type BrushStrokeOf = Schemas['BrushStroke']
export type Contour = Schemas['Contour']
export type PathNode = Schemas['Node']
export type SoundingClip = VideoClip | SoundClip | HoldingClip
export type PacedClip = VideoClip | SoundClip | HoldingClip
export type Speed = Schemas['Speed']
export type SpeedPoint = Schemas['SpeedPoint']
export type Cell = Schemas['Cell']
export type Marker = Schemas['Marker']
export type Tag = NonNullable<Marker['tag']>
export type Transition = NonNullable<VideoClip['transition']>
export type Edit = Schemas['StepIn']['edit']
export type Take = Schemas['TakeOut']
export type Playing = Schemas['Playing']
export type ProjectCard = Schemas['ProjectCard']
export type ExportOut = Schemas['ExportOut']
export type ExportSettings = Schemas['ExportSettings']
export type FrameRate = Required<Schemas['FrameRate']>

export const TICKS_PER_SECOND = 705_600_000

export function isPictured(clip: Clip): clip is PicturedClip {
  return clip.kind !== 'sound'
}

export function isDrawn(clip: Clip): clip is DrawnClip {
  return clip.kind === 'text' || clip.kind === 'shape'
}

export function isHolding(clip: Clip): clip is HoldingClip {
  return clip.kind === 'group' || clip.kind === 'multicam' || clip.kind === 'mouth'
}

export function isSounding(clip: Clip): clip is SoundingClip {
  return clip.kind !== 'mouth' && isPaced(clip)
}

/** Whether anything may be heard of a clip. */
export function mayBeHeard(clip: Clip): boolean {
  if (!isHolding(clip)) return isSounding(clip)
  if (clip.kind === 'mouth') return false
  return clip.tracks.some((track) => (track.clips ?? []).some(mayBeHeard))
}

export function isPaced(clip: Clip): clip is PacedClip {
  return clip.kind === 'video' || clip.kind === 'sound' || isHolding(clip)
}

export function hasMedia(clip: Clip): clip is VideoClip | StillClip | SoundClip {
  return clip.kind === 'video' || clip.kind === 'still' || clip.kind === 'sound'
}

/** The media whose picture stands for a clip. */
export function faceMedia(clip: Clip): string {
  if (hasMedia(clip)) return clip.media
  if (clip.kind === 'sequence') return clip.pictures[0] ?? ''
  if (!isHolding(clip)) return ''
  for (const track of clip.tracks) {
    for (const inner of track.clips ?? []) {
      const found = inner.kind === 'sound' ? '' : faceMedia(inner)
      if (found) return found
    }
  }
  return ''
}

type LooseOne<T> = T extends { kind: infer K } ? { kind: K } & Partial<Omit<T, 'kind'>> : never

/** An edit as the page writes it: the server fills in what is left out. */
export type Step = LooseOne<Edit>

/** The six numbers of an affine map: across by across, down by across, and so on, then the shift. */
export type Map6 = [number, number, number, number, number, number]

/** The take of a clip, as addresses name it: with the dashes that clips leave out. */
export const takeOf = (media: string) => ({
  id: media.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5'),
})
