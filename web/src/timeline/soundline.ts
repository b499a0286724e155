import { isKeyed, type Key, type Keyed } from '@/motion/keys'

/** How loud a fade is at a share 0..1 of its way, as the core has it. */
const FADES: Record<string, (share: number) => number> = {
  smooth: (share) => 0.5 - 0.5 * Math.cos(Math.PI * share),
  straight: (share) => share,
  early: (share) => Math.sin((share * Math.PI) / 2),
  late: (share) => 1 - Math.cos((share * Math.PI) / 2),
}
const STEPS = 16

export const fadeAt = (shape: string, share: number) =>
  (FADES[shape] ?? FADES.smooth ?? ((same: number) => same))(share)

/** What a fade in takes away, as a path from the upper left corner. */
export function fadeCurve(shape: string, width: number, height: number): string {
  if (width <= 0) return ''
  const points = Array.from({ length: STEPS + 1 }, (_, at) => {
    const share = at / STEPS
    return `L${(share * width).toFixed(1)} ${((1 - fadeAt(shape, share)) * height).toFixed(1)}`
  })
  return `M0 0${points.join('')}L${width.toFixed(1)} 0Z`
}

const bounded = (value: number) => Math.min(12, Math.max(-60, value))

/** A gain of which the part at a tick is brought to a value: all of it, or the keys beside. */
export function withGain(gain: unknown, tick: number, value: number): unknown {
  if (!isKeyed(gain)) return bounded(value)
  const next = gain.keys.findIndex((key) => key.at > tick)
  const before = next < 0 ? gain.keys.length - 1 : Math.max(0, next - 1)
  const after = next < 0 ? before : next
  const near = (at: number) => Math.abs((gain.keys[at]?.at ?? 0) - tick)
  const on = [before, after].find((at) => near(at) === 0)
  const held = on === undefined ? new Set([before, after]) : new Set([on])
  const now = between(gain.keys[before], gain.keys[after], tick)
  const keys = gain.keys.map((key, at) =>
    held.has(at) ? { ...key, value: bounded(Number(key.value) + value - now) } : key,
  )
  return { keys }
}

function between(a: Key | undefined, b: Key | undefined, tick: number): number {
  if (!a || !b) return 0
  if (a === b || b.at <= a.at) return Number(a.value)
  const share = Math.min(1, Math.max(0, (tick - a.at) / (b.at - a.at)))
  return Number(a.value) + (Number(b.value) - Number(a.value)) * share
}

/** With a key at a tick; one that is there gets the value. */
export function withKey(gain: unknown, tick: number, value: number): Keyed {
  const keys = isKeyed(gain) ? gain.keys : []
  const ease = keys.findLast((key) => key.at <= tick)?.ease ?? { kind: 'steady' as const }
  const made = { at: tick, value: bounded(value), ease }
  return {
    keys: [...keys.filter((key) => key.at !== tick), made].sort((a, b) => a.at - b.at),
  }
}

/** Without the key at a tick; the last one leaves its value. */
export function withoutKey(gain: unknown, tick: number): unknown {
  if (!isKeyed(gain)) return gain
  const keys = gain.keys.filter((key) => key.at !== tick)
  return keys.length ? { keys } : Number(gain.keys[0]?.value ?? 0)
}
