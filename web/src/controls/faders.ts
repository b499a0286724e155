/** How decibels lie on a fader and a meter: fine where one mixes, coarse where it is nearly silent. */

export const LOWEST = -60
export const HIGHEST = 12
/** The share of the way at which nothing is changed. */
const EVEN = 0.78
const BEND = 1.7

/** 0..1 from the lower end of the way. */
export function shareOf(decibels: number): number {
  if (decibels <= LOWEST) return 0
  if (decibels >= 0) return EVEN + (1 - EVEN) * Math.min(1, decibels / HIGHEST)
  return EVEN * (1 - (decibels / LOWEST) ** (1 / BEND))
}

export function decibelsAt(share: number): number {
  if (share <= 0) return LOWEST
  if (share >= EVEN) return Math.min(HIGHEST, ((share - EVEN) / (1 - EVEN)) * HIGHEST)
  return LOWEST * (1 - share / EVEN) ** BEND
}

/** To tenths; the lower end is silence. */
export function gainLabel(decibels: number): string {
  if (decibels <= LOWEST) return '−∞'
  const text = Math.abs(decibels).toFixed(1)
  if (Number(text) === 0) return '0.0'
  return `${decibels > 0 ? '+' : '−'}${text}`
}
