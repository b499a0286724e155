import type { Schemas } from './client'

export type Document = Schemas['Document']
export type Track = Schemas['Track']
export type Clip = NonNullable<Track['clips']>[number]
export type VideoClip = Schemas['VideoClip']
export type StillClip = Schemas['StillClip']
export type SoundClip = Schemas['SoundClip']
export type SolidClip = Schemas['SolidClip']
export type PicturedClip = VideoClip | StillClip | SolidClip
export type SoundingClip = VideoClip | SoundClip
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

export function isSounding(clip: Clip): clip is SoundingClip {
  return clip.kind === 'video' || clip.kind === 'sound'
}

export function hasMedia(clip: Clip): clip is VideoClip | StillClip | SoundClip {
  return clip.kind !== 'solid'
}

type LooseOne<T> = T extends { kind: infer K } ? { kind: K } & Partial<Omit<T, 'kind'>> : never

/** An edit as the page writes it: the server fills in what is left out. */
export type Step = LooseOne<Edit>
