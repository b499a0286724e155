import { TICKS_PER_SECOND, type Transition } from '@/api/types'
import { t } from '@/texts'

export type TransitionKind = Transition['kind']

/** The transitions there are, as they are offered. */
export const TRANSITIONS: { kind: TransitionKind; name: string; help: string }[] = [
  {
    kind: 'dissolve',
    name: t('timeline.transitions.dissolve'),
    help: t('timeline.transitions.oneFadesIntoTheOther'),
  },
  {
    kind: 'dip',
    name: t('timeline.transitions.dip'),
    help: t('timeline.transitions.downToAColourAnd'),
  },
  {
    kind: 'wipe',
    name: t('timeline.transitions.wipe'),
    help: t('timeline.transitions.aLinePassesOverThe'),
  },
  {
    kind: 'push',
    name: t('timeline.transitions.push'),
    help: t('timeline.transitions.theNewPicturePushesThe'),
  },
  {
    kind: 'slide',
    name: t('timeline.transitions.slide'),
    help: t('timeline.transitions.theNewPictureSlidesOver'),
  },
  {
    kind: 'blur_through',
    name: t('timeline.transitions.blur'),
    help: t('timeline.transitions.blursOutOfOneAnd'),
  },
]

export interface Param {
  name: 'angle' | 'softness' | 'amount'
  label: string
  low: number
  high: number
  step: number
  unit: string
  /** Shown value is the kept one times this. */
  scale: number
  start: number
}

const ANGLE: Param = {
  name: 'angle',
  label: t('timeline.transitions.way'),
  low: -180,
  high: 180,
  step: 5,
  unit: '°',
  scale: 1,
  start: 0,
}

/** What each can be set to, beside length and pace. */
export const PARAMS: Partial<Record<TransitionKind, Param[]>> = {
  wipe: [
    ANGLE,
    {
      name: 'softness',
      label: t('timeline.transitions.softness'),
      low: 0,
      high: 100,
      step: 1,
      unit: '%',
      scale: 100,
      start: 0.1,
    },
  ],
  push: [ANGLE],
  slide: [ANGLE],
  blur_through: [
    {
      name: 'amount',
      label: t('timeline.transitions.blur'),
      low: 5,
      high: 200,
      step: 1,
      unit: 'px',
      scale: 1,
      start: 60,
    },
  ],
}

export const DEFAULT_LENGTH = Math.round(TICKS_PER_SECOND * 0.6)

/** A fresh transition, as long as the one before it was. */
export function startOfKind(
  kind: TransitionKind,
  length = DEFAULT_LENGTH,
): Record<string, unknown> {
  const params = Object.fromEntries((PARAMS[kind] ?? []).map((one) => [one.name, one.start]))
  return { kind, length, ...params }
}
