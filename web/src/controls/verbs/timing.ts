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
import { always, ids, ofKind, onFree, over, paced, single, type Situation, type Verb } from './verb'

/** Time, sources and sound of clips. */
export const TIMING: Verb[] = [
  {
    id: 'mark',
    label: 'Mark',
    help: 'A marker at the playhead: on the clip in hand, else on the timeline',
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
    label: 'Freeze',
    help: 'The picture at the playhead stands still for 2 s; what follows moves',
    key: 'shift+f',
    icon: IconFreeze,
    more: true,
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
    label: 'Reverse',
    help: 'Plays it from its end to its beginning',
    key: 'b',
    icon: IconReverse,
    more: true,
    shown: paced,
    ready: paced,
    step: (now) => ({ kind: 'reverse', clips: ids(now) }),
  },
  {
    id: 'replace',
    label: 'Replace by chosen take',
    help: 'Another source; place, effects, speed and sound settings stay, and so does the length',
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
    label: 'Sound as its own clip',
    help: 'Lays its sound on a sound track, where it goes along with the video',
    key: 'shift+s',
    icon: IconDetach,
    more: true,
    shown: (now) => now.hand.some(({ clip }) => clip.kind === 'video'),
    ready: always,
    step: (now) => ({ kind: 'detach_sound', clips: ids(now) }),
  },
  {
    id: 'resync',
    label: 'Back in sync',
    help: 'Moves the sound back to where it fits its video',
    key: 'y',
    icon: IconSync,
    more: true,
    shown: (now) => single(now) && ofKind(now, 'sound') && Boolean(now.hand[0]?.clip.rides),
    ready: always,
    step: (now) => ({ kind: 'resync', clip: ids(now)[0] ?? '' }),
  },
  {
    id: 'ride',
    label: 'Go along',
    help: 'Moves along from now on with the clip of the main track below it',
    key: 'a',
    icon: IconLink,
    more: true,
    shown: (now) => onFree(now) && now.hand.every(({ clip }) => !clip.rides),
    ready: (now) => Boolean(below(now)),
    step: (now) => ({ kind: 'ride', clips: ids(now), on: below(now) }),
  },
  {
    id: 'stay',
    label: 'Stay',
    help: 'Does not move along with another clip any more',
    key: 'shift+a',
    icon: IconStay,
    more: true,
    shown: (now) => onFree(now) && now.hand.some(({ clip }) => clip.rides),
    ready: always,
    step: (now) => ({ kind: 'ride', clips: ids(now), on: null }),
  },
  {
    id: 'keep-frame',
    label: 'Keep frame',
    help: 'Keeps the picture at the playhead as a still in the library',
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
