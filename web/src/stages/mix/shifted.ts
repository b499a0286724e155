import { isKeyed } from '@/motion/keys'

/** The bounds of a gain, in dB. */
const LOW = -60
const HIGH = 24

const bounded = (value: number) => Math.round(Math.min(HIGH, Math.max(LOW, value)) * 100) / 100

/**
 * A gain, or all of its keys, by some decibels. With `to`, so that its loudest is that many decibels
 * from none: what it was before does not count, only how its keys lie to each other.
 */
export function shifted(gain: unknown, by: number, { to = false } = {}): unknown {
  if (!isKeyed(gain)) return bounded((to ? 0 : Number(gain ?? 0)) + by)
  const values = gain.keys.map((key) => Number(key.value))
  const off = by - (to ? Math.max(...values) : 0)
  return { keys: gain.keys.map((key) => ({ ...key, value: bounded(Number(key.value) + off) })) }
}
