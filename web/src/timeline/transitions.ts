import { TICKS_PER_SECOND, type Transition } from '@/api/types'

export type TransitionKind = Transition['kind']

/** The transitions there are, as they are offered. */
export const TRANSITIONS: { kind: TransitionKind; name: string; help: string }[] = [
  { kind: 'dissolve', name: 'Dissolve', help: 'One fades into the other' },
  { kind: 'dip', name: 'Dip', help: 'Down to a colour and up from it' },
  { kind: 'wipe', name: 'Wipe', help: 'A line passes over the picture' },
  { kind: 'push', name: 'Push', help: 'The new picture pushes the old one out' },
  { kind: 'slide', name: 'Slide', help: 'The new picture slides over the old one' },
  { kind: 'blur_through', name: 'Blur', help: 'Blurs out of one and into the other' },
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
  label: 'Way',
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
      label: 'Softness',
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
    { name: 'amount', label: 'Blur', low: 5, high: 200, step: 1, unit: 'px', scale: 1, start: 60 },
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
