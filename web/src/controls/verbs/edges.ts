import IconEnd from '~icons/tabler/arrow-bar-right'
import IconRoll from '~icons/tabler/arrows-horizontal'
import IconSlip from '~icons/tabler/arrows-move-horizontal'
import IconStart from '~icons/tabler/arrow-bar-left'
import { isPaced, type Step } from '@/api/types'
import { joinsNear, nearestJoin } from '@/inhand/joins'
import { t } from '@/texts'
import { any, frameOf, ids, type Situation, type Verb } from './verb'

const WAYS = [1, -1] as const
type Way = (typeof WAYS)[number]

/** The same by one frame either way; with Shift it goes earlier. */
function both(
  letter: string,
  make: (by: Way, way: string) => Omit<Verb, 'key' | 'repeats' | 'more'>,
  before = '',
) {
  return WAYS.map((by): Verb => {
    const key = `${before}${by > 0 ? '' : 'shift+'}${letter}`
    return {
      ...make(by, by > 0 ? t('words.later') : t('words.earlier')),
      key,
      repeats: true,
      more: true,
    }
  })
}

const trim = (now: Situation, edge: 'start' | 'end', by: Way): Step => ({
  kind: 'trim_by',
  clips: ids(now),
  edge,
  by: by * frameOf(now),
})

const joinOf = ({ tracks, hand, at }: Situation) =>
  nearestJoin(joinsNear(tracks ?? [], hand.length === 1 ? hand[0]?.track : undefined), at)

/** Ends, content and joins by single frames. */
export const EDGES: Verb[] = [
  ...both('t', (by, way) => ({
    id: `start-${way}`,
    label: t('controls.edges.start', { way }),
    help: t('controls.edges.theClipBeginsOneFrame', { way }),
    icon: IconStart,
    shown: any,
    ready: any,
    step: (now) => trim(now, 'start', by),
  })),
  ...both('j', (by, way) => ({
    id: `end-${way}`,
    label: t('controls.edges.end', { way }),
    help: t('controls.edges.theClipEndsOneFrame', { way }),
    icon: IconEnd,
    shown: any,
    ready: any,
    step: (now) => trim(now, 'end', by),
  })),
  ...both('z', (by, way) => ({
    id: `slip-${way}`,
    label: t('controls.edges.slip', { way }),
    help: t('controls.edges.showsItsSourceOneFrame', { way }),
    icon: IconSlip,
    shown: (now) => now.hand.some(({ clip }) => isPaced(clip) || clip.kind === 'sequence'),
    ready: () => true,
    step: (now) => ({ kind: 'slip', clips: ids(now), by: by * frameOf(now) }),
  })),
  ...both(
    'j',
    (by, way) => ({
      id: `roll-${way}`,
      label: t('controls.edges.roll', { way }),
      help: t('controls.edges.movesTheJoinNearestThe', { way }),
      icon: IconRoll,
      shown: (now) => joinOf(now) !== null,
      ready: () => true,
      step: (now) => ({ kind: 'roll', clip: joinOf(now)?.after.id ?? '', by: by * frameOf(now) }),
    }),
    'alt+',
  ),
]
