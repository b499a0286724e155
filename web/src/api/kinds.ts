import type { Component } from 'vue'
import IconPhoto from '~icons/tabler/photo'
import IconMovie from '~icons/tabler/movie'
import IconMusic from '~icons/tabler/music'
import IconSquare from '~icons/tabler/square'
import IconStack from '~icons/tabler/stack-2'
import IconPhotos from '~icons/tabler/library-photo'
import IconAdjust from '~icons/tabler/adjustments-horizontal'
import IconShape from '~icons/tabler/hexagon'
import IconText from '~icons/tabler/letter-t'
import IconAngles from '~icons/tabler/layout-board'
import IconMouth from '~icons/tabler/mood-smile'
import { t } from '@/texts'
import type { Clip, Tag } from './types'

/** A kind of clip is told by name and glyph, not by its tint alone. */
export const KIND_NAMES: Record<Clip['kind'], string> = {
  video: t('api.kinds.video'),
  still: t('api.kinds.still'),
  sound: t('api.kinds.sound'),
  solid: t('api.kinds.solid'),
  sequence: t('api.kinds.sequence'),
  group: t('api.kinds.group'),
  multicam: t('api.kinds.multicam'),
  mouth: t('api.kinds.mouth'),
  text: t('api.kinds.text'),
  shape: t('api.kinds.shape'),
  adjustment: t('api.kinds.adjustment'),
}

export const KIND_ICONS: Record<Clip['kind'], Component> = {
  video: IconMovie,
  still: IconPhoto,
  sound: IconMusic,
  solid: IconSquare,
  sequence: IconPhotos,
  group: IconStack,
  multicam: IconAngles,
  mouth: IconMouth,
  text: IconText,
  shape: IconShape,
  adjustment: IconAdjust,
}

/** What a clip is tinted with on the timeline. */
export const KIND_TINTS: Record<Clip['kind'], string> = {
  video: 'var(--video)',
  still: 'var(--still)',
  sound: 'var(--sound)',
  solid: 'var(--solid)',
  sequence: 'var(--still)',
  group: 'var(--group)',
  multicam: 'var(--group)',
  mouth: 'var(--group)',
  text: 'var(--text-clip)',
  shape: 'var(--shape)',
  adjustment: 'var(--adjustment)',
}

/** Colours that clips, markers and takes can be tagged with; each is shown with its name too. */
export const TAGS: { id: Tag; name: string; colour: string }[] = [
  { id: '', name: t('api.tags.none'), colour: 'transparent' },
  { id: 'sky', name: t('api.tags.sky'), colour: '#7db4e0' },
  { id: 'amber', name: t('api.tags.amber'), colour: '#e0a63a' },
  { id: 'olive', name: t('api.tags.olive'), colour: '#a7ab4b' },
  { id: 'sea', name: t('api.tags.sea'), colour: '#5cbfae' },
  { id: 'violet', name: t('api.tags.violet'), colour: '#9a8cf0' },
  { id: 'rose', name: t('api.tags.rose'), colour: '#d983a8' },
]

export function tagColour(tag: string | undefined): string {
  return TAGS.find((one) => one.id === tag)?.colour ?? 'transparent'
}

/** Of a marker, which is seen without a colour of its own too. */
export function markColour(tag: string | undefined): string {
  return tag ? tagColour(tag) : 'var(--mark)'
}
