/** Where an equaliser's bands lie on its graph. */
import type { Schemas } from '@/api/client'

export type Equaliser = Schemas['Equaliser']

export const LOW = 20
export const HIGH = 20_000
/** Decibels at the upper edge. */
export const MOST = 18
export const W = 320
export const H = 150

/** Places of the curve's points, in Hz. */
export const FREQUENCIES = Array.from({ length: 121 }, (_, i) => LOW * (HIGH / LOW) ** (i / 120))

export const xOf = (frequency: number) => (Math.log(frequency / LOW) / Math.log(HIGH / LOW)) * W
export const yOf = (decibels: number) =>
  H / 2 - (Math.max(-24, Math.min(24, decibels)) / MOST) * (H / 2)
export const frequencyAt = (x: number) =>
  Math.round(Math.min(HIGH, Math.max(LOW, LOW * (HIGH / LOW) ** (x / W))))
export const decibelsAt = (y: number) =>
  Math.round(Math.min(MOST, Math.max(-MOST, ((H / 2 - y) / (H / 2)) * MOST)) * 10) / 10

export const frequencyLabel = (frequency: number) =>
  frequency >= 1000 ? `${Number((frequency / 1000).toFixed(2))} kHz` : `${Math.round(frequency)} Hz`
