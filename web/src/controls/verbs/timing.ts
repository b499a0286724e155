import IconDetach from '~icons/tabler/volume'
import IconFreeze from '~icons/tabler/snowflake'
import IconFrame from '~icons/tabler/camera'
import IconLink from '~icons/tabler/link'
import IconMark from '~icons/tabler/bookmark'
import IconReplace from '~icons/tabler/replace'
import IconReverse from '~icons/tabler/arrows-exchange'
import IconStay from '~icons/tabler/unlink'
import IconSync from '~icons/tabler/arrows-left-right'
import { TICKS_PER_SECOND, type Take } from '@/api/types'
import { partOf, type TakePart } from '@/takes/placing'
import { t } from '@/texts'
import { always, ids, ofKind, onFree, over, paced, single, type Situation, type Verb } from './verb'

/** Time, sources and sound of clips. */
export const TIMING: Verb[] = [
  {
    id: 'mark',
    label: t('controls.timing.mark'),
    help: t('controls.timing.aMarkerAtThePlayhead'),
    key: 'k',
    icon: IconMark,
    shown: always,
    ready: always,
    step: (now) => ({
      kind: 'add_marker',
      at: now.at,
      clip: single(now) && over(now) ? ids(now)[0] : null,
      name: '',
      tag: 'amber',
    }),
  },
  {
    id: 'freeze',
    label: t('controls.timing.freeze'),
    help: t('controls.timing.thePictureAtThePlayhead'),
    key: 'shift+f',
    icon: IconFreeze,
    more: true,
    brings: 'first',
    shown: (now) => single(now) && paced(now) && !ofKind(now, 'sound'),
    ready: over,
    step: (now) => ({
      kind: 'freeze',
      clip: ids(now)[0] ?? '',
      at: now.at,
      length: 2 * TICKS_PER_SECOND,
    }),
  },
  {
    id: 'reverse',
    label: t('controls.timing.reverse'),
    help: t('controls.timing.playsItFromItsEnd'),
    key: 'b',
    icon: IconReverse,
    more: true,
    shown: paced,
    ready: paced,
    step: (now) => ({ kind: 'reverse', clips: ids(now) }),
  },
  {
    id: 'replace',
    label: t('controls.timing.replaceByChosenTake'),
    help: t('controls.timing.anotherSourcePlaceEffectsSpeed'),
    key: 'shift+r',
    icon: IconReplace,
    more: true,
    shown: (now) => single(now) && Boolean(now.chosen?.facts),
    ready: (now) => now.chosen?.state !== 'refused',
    step: (now) => ({
      kind: 'replace',
      clip: ids(now)[0] ?? '',
      take: partOf(now.chosen as Take) as TakePart,
    }),
  },
  {
    id: 'detach',
    label: t('controls.timing.soundAsItsOwnClip'),
    help: t('controls.timing.laysItsSoundOnA'),
    key: 'shift+s',
    icon: IconDetach,
    more: true,
    shown: (now) => now.hand.some(({ clip }) => clip.kind === 'video'),
    ready: always,
    step: (now) => ({ kind: 'detach_sound', clips: ids(now) }),
  },
  {
    id: 'resync',
    label: t('controls.timing.backInSync'),
    help: t('controls.timing.movesTheSoundBackTo'),
    key: 'y',
    icon: IconSync,
    more: true,
    shown: (now) => single(now) && ofKind(now, 'sound') && Boolean(now.hand[0]?.clip.rides),
    ready: always,
    step: (now) => ({ kind: 'resync', clip: ids(now)[0] ?? '' }),
  },
  {
    id: 'ride',
    label: t('controls.timing.goAlong'),
    help: t('controls.timing.movesAlongFromNowOn'),
    key: 'a',
    icon: IconLink,
    more: true,
    shown: (now) => onFree(now) && now.hand.every(({ clip }) => !clip.rides),
    ready: (now) => Boolean(below(now)),
    step: (now) => ({ kind: 'ride', clips: ids(now), on: below(now) }),
  },
  {
    id: 'stay',
    label: t('controls.timing.stay'),
    help: t('controls.timing.doesNotMoveAlongWith'),
    key: 'shift+a',
    icon: IconStay,
    more: true,
    shown: (now) => onFree(now) && now.hand.some(({ clip }) => clip.rides),
    ready: always,
    step: (now) => ({ kind: 'ride', clips: ids(now), on: null }),
  },
  {
    id: 'keep-frame',
    label: t('controls.timing.keepFrame'),
    help: t('controls.timing.keepsThePictureAtThe'),
    key: 'p',
    icon: IconFrame,
    more: true,
    shown: always,
    ready: always,
    act: (_, hands) => hands.keepFrame(),
  },
]

/** The clip of the main track at the start of what is in hand. */
function below(now: Situation): string | null {
  const start = now.hand[0]?.clip.start ?? 0
  const main = now.tracks?.find((track) => track.kind === 'main')
  const clips = main?.clips ?? []
  const found = clips.find(
    (clip) => (clip.start ?? 0) <= start && start < (clip.start ?? 0) + clip.length,
  )
  return found?.id ?? null
}
