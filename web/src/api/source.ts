import type { Edit, FrameRate } from './types'

/** Something that can be watched: a revision of a project, or a take. */
export interface Source {
  /** Beginning of the addresses of its stills and pieces. */
  base: string
  /** What else an address says: the open group, the speed of playing. */
  query?: Record<string, string>
  /** Edits that its pictures are drawn with although they are not acknowledged. */
  pending?: Edit[]
  frames: number
  rate: FrameRate
}
