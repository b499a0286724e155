import IconBack from '~icons/tabler/chevron-left'
import IconClose from '~icons/tabler/arrow-bar-to-left'
import IconFarBack from '~icons/tabler/chevrons-left'
import IconFarOn from '~icons/tabler/chevrons-right'
import IconHere from '~icons/tabler/arrow-bar-to-down'
import IconOn from '~icons/tabler/chevron-right'
import { t } from '@/texts'
import type { Verb } from './verb'
import { frameOf, ids, onFree, single } from './verb'

function nudge(frames: number, key: string, icon: Verb['icon']): Verb {
  const far = Math.abs(frames)
  const way = frames < 0 ? t('words.earlier') : t('words.later')
  return {
    id: `nudge${frames}`,
    label: t('controls.moving.byFrames', { sign: frames > 0 ? '+' : '−' }, far),
    help: t('controls.moving.movesIt', { way }, far),
    key,
    icon,
    repeats: true,
    more: true,
    shown: onFree,
    ready: onFree,
    step: (now) => ({ kind: 'shift', clips: ids(now), by: frames * frameOf(now) }),
  }
}

/** Moving clips of free tracks by exact amounts. */
export const MOVING: Verb[] = [
  nudge(-10, 'shift+,', IconFarBack),
  nudge(-1, ',', IconBack),
  nudge(1, '.', IconOn),
  nudge(10, 'shift+.', IconFarOn),
  {
    id: 'here',
    label: t('controls.moving.toPlayhead'),
    help: t('controls.moving.movesItSoThatIt'),
    key: 'h',
    icon: IconHere,
    more: true,
    shown: single,
    ready: single,
    step: (now) => ({ kind: 'move', clip: ids(now)[0] ?? '', to: now.at }),
  },
  {
    id: 'close-gap',
    label: t('controls.moving.closeGapBefore'),
    help: t('controls.moving.movesItAndAllThat'),
    key: 'shift+h',
    icon: IconClose,
    more: true,
    shown: onFree,
    ready: onFree,
    step: (now) => ({ kind: 'close_gap', clips: ids(now) }),
  },
]
