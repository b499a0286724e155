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
import { endOf, startOf } from '@/stores/project'
import { t } from '@/texts'
import { any, ids, inside, onTrack, single, type Verb } from './verb'

/** Cutting and placing: what stands in the bar. */
export const CUTTING: Verb[] = [
  {
    id: 'away-left',
    label: t('controls.cutting.awayLeft'),
    help: t('controls.cutting.whatLiesLeftOfThe'),
    key: 'l',
    icon: IconLeft,
    shown: any,
    ready: inside,
    step: (now) => ({ kind: 'cut_away', clips: ids(now), side: 'left', at: now.at }),
    moves: ({ hand, at }) => {
      const cut = hand.find(
        ({ clip, track }) => track.closes_gaps && startOf(clip) < at && at < endOf(clip),
      )
      return cut ? startOf(cut.clip) : null
    },
  },
  {
    id: 'split',
    label: t('controls.cutting.split'),
    help: t('controls.cutting.cutsInTwoAtThe'),
    key: 's',
    icon: IconSplit,
    shown: () => true,
    ready: (now) => !any(now) || inside(now),
    step: (now) => ({ kind: 'split', clips: ids(now), at: now.at }),
  },
  {
    id: 'away-right',
    label: t('controls.cutting.awayRight'),
    help: t('controls.cutting.whatLiesRightOfThe'),
    key: 'r',
    icon: IconRight,
    shown: any,
    ready: inside,
    step: (now) => ({ kind: 'cut_away', clips: ids(now), side: 'right', at: now.at }),
  },
  {
    id: 'duplicate',
    label: t('controls.cutting.duplicate'),
    help: t('controls.cutting.aCopyRightBehindIt'),
    key: 'd',
    brings: 'all',
    icon: IconCopy,
    shown: any,
    ready: any,
    step: (now) => ({ kind: 'duplicate', clips: ids(now) }),
  },
  {
    id: 'raise',
    label: t('controls.cutting.raise'),
    help: t('controls.cutting.movesItToATrack'),
    key: 'u',
    icon: IconRaise,
    shown: (now) => single(now) && onTrack(now, 'main'),
    ready: single,
    step: (now) => ({ kind: 'raise', clip: ids(now)[0] ?? '' }),
  },
  {
    id: 'lower',
    label: t('controls.cutting.lower'),
    help: t('controls.cutting.putsItBackIntoThe'),
    key: 'shift+u',
    icon: IconLower,
    shown: (now) => single(now) && onTrack(now, 'picture'),
    ready: single,
    step: (now) => ({ kind: 'lower', clip: ids(now)[0] ?? '' }),
  },
  {
    id: 'fill',
    label: t('controls.cutting.fill'),
    help: t('controls.cutting.fillsTheCanvasWithThe'),
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
    label: t('controls.cutting.mute'),
    help: t('controls.cutting.switchesItsSoundOffOr'),
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
    label: t('controls.cutting.delete'),
    help: t('controls.cutting.deletesItTheMainTrack'),
    key: 'delete',
    icon: IconTrash,
    danger: true,
    shown: any,
    ready: any,
    step: (now) => ({ kind: 'remove', clips: ids(now), close: false }),
  },
  {
    id: 'delete-close',
    label: t('controls.cutting.closeGap'),
    help: t('controls.cutting.deletesItAndClosesThe'),
    key: 'shift+delete',
    icon: IconTrash,
    danger: true,
    more: true,
    shown: (now) => any(now) && now.hand.some(({ track }) => !track.closes_gaps),
    ready: any,
    step: (now) => ({ kind: 'remove', clips: ids(now), close: true }),
  },
]
