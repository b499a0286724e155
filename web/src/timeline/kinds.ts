import type { Component } from 'vue'
import IconPhoto from '~icons/tabler/photo'
import IconMovie from '~icons/tabler/movie'
import IconMusic from '~icons/tabler/music'
import IconSquare from '~icons/tabler/square'
import type { Clip } from '@/api/types'

/** A kind of clip is told by name and glyph, not by its tint alone. */
export const KIND_NAMES: Record<Clip['kind'], string> = {
  video: 'video',
  still: 'still',
  sound: 'sound',
  solid: 'colour',
}

export const KIND_ICONS: Record<Clip['kind'], Component> = {
  video: IconMovie,
  still: IconPhoto,
  sound: IconMusic,
  solid: IconSquare,
}
