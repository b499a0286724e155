import IconLeft from '~icons/tabler/arrow-bar-to-right'
import IconRight from '~icons/tabler/arrow-bar-to-left'
import IconCopy from '~icons/tabler/copy'
import IconFit from '~icons/tabler/aspect-ratio'
import IconLower from '~icons/tabler/stack-pop'
import IconMute from '~icons/tabler/volume-off'
import IconRaise from '~icons/tabler/stack-push'
import IconSplit from '~icons/tabler/separator-vertical'
import IconTrash from '~icons/tabler/trash'
import { isPictured, isSounding } from '@/api/types'
import { any, ids, inside, onTrack, single, type Verb } from './verb'

/** Cutting and placing: what stands in the bar. */
export const CUTTING: Verb[] = [
  {
    id: 'away-left',
    label: 'Away left',
    help: 'What lies left of the playhead goes',
    key: 'l',
    icon: IconLeft,
    shown: any,
    ready: inside,
    step: (now) => ({ kind: 'cut_away', clips: ids(now), side: 'left', at: now.at }),
  },
  {
    id: 'split',
    label: 'Split',
    help: 'Cuts in two at the playhead; with nothing in hand, on all tracks',
    key: 's',
    icon: IconSplit,
    shown: () => true,
    ready: (now) => !any(now) || inside(now),
    step: (now) => ({ kind: 'split', clips: ids(now), at: now.at }),
  },
  {
    id: 'away-right',
    label: 'Away right',
    help: 'What lies right of the playhead goes',
    key: 'r',
    icon: IconRight,
    shown: any,
    ready: inside,
    step: (now) => ({ kind: 'cut_away', clips: ids(now), side: 'right', at: now.at }),
  },
  {
    id: 'duplicate',
    label: 'Duplicate',
    help: 'A copy right behind it',
    key: 'd',
    brings: true,
    icon: IconCopy,
    shown: any,
    ready: any,
    step: (now) => ({ kind: 'duplicate', clips: ids(now) }),
  },
  {
    id: 'raise',
    label: 'Raise',
    help: 'Moves it to a track of its own above',
    key: 'u',
    icon: IconRaise,
    shown: (now) => single(now) && onTrack(now, 'main'),
    ready: single,
    step: (now) => ({ kind: 'raise', clip: ids(now)[0] ?? '' }),
  },
  {
    id: 'lower',
    label: 'Lower',
    help: 'Puts it back into the main track',
    key: 'shift+u',
    icon: IconLower,
    shown: (now) => single(now) && onTrack(now, 'picture'),
    ready: single,
    step: (now) => ({ kind: 'lower', clip: ids(now)[0] ?? '' }),
  },
  {
    id: 'fill',
    label: 'Fill',
    help: 'Fills the canvas with the picture, or shows the whole picture again',
    key: 'f',
    more: true,
    icon: IconFit,
    shown: (now) => single(now) && now.hand.every(({ clip }) => isPictured(clip)),
    ready: single,
    step: (now) => {
      const clip = now.hand[0]?.clip
      const fits = clip && isPictured(clip) && clip.place?.fit === 'fill'
      return { kind: 'adjust', clips: ids(now), values: { 'place/fit': fits ? 'whole' : 'fill' } }
    },
  },
  {
    id: 'mute',
    label: 'Mute',
    help: 'Switches its sound off or on',
    key: 'm',
    more: true,
    icon: IconMute,
    shown: (now) => now.hand.some(({ clip }) => isSounding(clip)),
    ready: any,
    step: (now) => {
      const muted = now.hand.every(({ clip }) => !isSounding(clip) || clip.muted)
      return { kind: 'adjust', clips: ids(now), values: { muted: !muted } }
    },
  },
  {
    id: 'delete',
    label: 'Delete',
    help: 'Deletes it; the main track closes the gap, others leave it',
    key: 'delete',
    icon: IconTrash,
    danger: true,
    shown: any,
    ready: any,
    step: (now) => ({ kind: 'remove', clips: ids(now), close: false }),
  },
  {
    id: 'delete-close',
    label: 'Close gap',
    help: 'Deletes it and closes the gap: later clips of its track move up',
    key: 'shift+delete',
    icon: IconTrash,
    danger: true,
    shown: (now) => any(now) && now.hand.some(({ track }) => !track.closes_gaps),
    ready: any,
    step: (now) => ({ kind: 'remove', clips: ids(now), close: true }),
  },
]
