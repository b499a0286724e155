import { t } from '@/texts'

/** How a value goes from key to key; the same functions as the core's. */

export interface Ease {
  kind: string
  x1?: number
  y1?: number
  x2?: number
  y2?: number
  count?: number
  kept?: number
  stiffness?: number
  damping?: number
  backwards?: boolean
}

export type Bezier = Ease & { kind: 'bezier'; x1: number; y1: number; x2: number; y2: number }

type Function = (ease: Ease, progress: number) => number

const FUNCTIONS: Record<string, Function> = {
  hold: (_, progress) => (progress >= 1 ? 1 : 0),
  steady: (_, progress) => progress,
  bezier,
  steps: ({ count = 4 }, progress) => Math.floor(progress * count + 1e-9) / count,
  bounce,
  spring: (ease, progress) => sprung(ease, progress) + progress * (1 - sprung(ease, 1)),
}

/** Share of the way that is done when a share of the time is over; may overshoot. */
export function eased(ease: Ease | undefined, progress: number): number {
  if (!ease) return progress
  const run = FUNCTIONS[ease.kind] ?? FUNCTIONS.steady
  if (!run) return progress
  return ease.backwards ? 1 - run(ease, 1 - progress) : run(ease, progress)
}

export function isBezier(ease: Ease | undefined): ease is Bezier {
  return ease?.kind === 'bezier'
}

function axis(first: number, second: number, t: number): number {
  return 3 * (1 - t) ** 2 * t * first + 3 * (1 - t) * t * t * second + t ** 3
}

function bezier({ x1 = 0, y1 = 0, x2 = 1, y2 = 1 }: Ease, progress: number): number {
  if (progress <= 0 || progress >= 1) return Math.min(1, Math.max(0, progress))
  let [low, high] = [0, 1]
  for (let step = 0; step < 40; step++) {
    const middle = (low + high) / 2
    if (axis(x1, x2, middle) < progress) low = middle
    else high = middle
  }
  return axis(y1, y2, (low + high) / 2)
}

function bounce({ count = 3, kept = 0.3 }: Ease, progress: number): number {
  if (progress >= 1) return 1
  const heights = Array.from({ length: count }, (_, index) => kept ** (index + 1))
  const fall = 1 / (1 + 2 * heights.reduce((sum, height) => sum + Math.sqrt(height), 0))
  if (progress <= fall) return (progress / fall) ** 2
  let begin = fall
  for (const height of heights) {
    const half = fall * Math.sqrt(height)
    if (progress <= begin + 2 * half) {
      return 1 - height + (progress - begin - half) ** 2 / fall ** 2
    }
    begin += 2 * half
  }
  return 1
}

function sprung({ stiffness = 320, damping = 16 }: Ease, time: number): number {
  const slowing = damping / 2
  const inside = stiffness - slowing * slowing
  const rate = Math.sqrt(stiffness)
  if (Math.abs(inside) < 1e-9 * stiffness) return 1 - Math.exp(-rate * time) * (1 + rate * time)
  if (inside > 0) {
    const turns = Math.sqrt(inside)
    const swing = Math.cos(turns * time) + (slowing / turns) * Math.sin(turns * time)
    return 1 - Math.exp(-slowing * time) * swing
  }
  const spread = Math.sqrt(-inside)
  const [fast, slow] = [slowing + spread, slowing - spread]
  const left = fast * Math.exp(-slow * time) - slow * Math.exp(-fast * time)
  return 1 - left / (2 * spread)
}

export interface Preset {
  id: string
  name: string
  ease: Ease
}

/** Eases at hand, the soft ones first. */
export const PRESETS: Preset[] = [
  { id: 'steady', name: t('motion.easing.steady'), ease: { kind: 'steady' } },
  {
    id: 'soft',
    name: t('motion.easing.soft'),
    ease: { kind: 'bezier', x1: 0.42, y1: 0, x2: 0.58, y2: 1 },
  },
  {
    id: 'softer',
    name: t('motion.easing.softer'),
    ease: { kind: 'bezier', x1: 0.76, y1: 0, x2: 0.24, y2: 1 },
  },
  {
    id: 'sets-off',
    name: t('motion.easing.setsOff'),
    ease: { kind: 'bezier', x1: 0.55, y1: 0, x2: 0.9, y2: 0.6 },
  },
  {
    id: 'arrives',
    name: t('motion.easing.arrives'),
    ease: { kind: 'bezier', x1: 0.1, y1: 0.6, x2: 0.3, y2: 1 },
  },
  {
    id: 'overshoot',
    name: t('motion.easing.overshoot'),
    ease: { kind: 'bezier', x1: 0.3, y1: 1.5, x2: 0.6, y2: 1 },
  },
  {
    id: 'wind-up',
    name: t('motion.easing.windUp'),
    ease: { kind: 'bezier', x1: 0.5, y1: -0.45, x2: 0.5, y2: 1.45 },
  },
  {
    id: 'spring',
    name: t('motion.easing.spring'),
    ease: { kind: 'spring', stiffness: 320, damping: 16 },
  },
  { id: 'bounce', name: t('motion.easing.bounce'), ease: { kind: 'bounce', count: 3, kept: 0.3 } },
  { id: 'steps', name: t('motion.easing.steps'), ease: { kind: 'steps', count: 4 } },
  { id: 'hold', name: t('motion.easing.hold'), ease: { kind: 'hold' } },
]

/** What an ease is called: one at hand by its name, another by its kind. */
export function nameOfEase(ease: Ease | undefined): string {
  const now = ease ?? { kind: 'steady' }
  const numbers = (one: Ease) => [one.x1, one.y1, one.x2, one.y2].join()
  const kin = PRESETS.filter((one) => one.ease.kind === now.kind)
  const same = kin.find((one) => numbers(one.ease) === numbers(now))
  if (same) return same.name
  return isBezier(now) ? t('motion.easing.curve') : (kin[0]?.name ?? now.kind)
}

/** Shape of a key on the screen, by its ease: steady sharp, hold flat on the right, others round. */
export function keyShape(ease: Ease | undefined): string {
  if (ease?.kind === 'hold' || ease?.kind === 'steps') return 'M7 0L7 20L0 7Z'
  if (!ease || ease.kind === 'steady') return 'M7 0L14 7L7 20L0 7Z'
  return 'M7 0Q13 2 14 7Q13 14 7 20Q1 14 0 7Q1 2 7 0Z'
}
