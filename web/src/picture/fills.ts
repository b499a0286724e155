import type { Fill } from '@/api/types'
import { isKeyed, valueAt } from '@/motion/keys'

const GREY = '#808080'

function colourOf(value: unknown): string {
  const now = isKeyed(value) ? valueAt(value, 0) : value
  return typeof now === 'string' ? now : GREY
}

/** A fill as a CSS background, as it is at the start; gradients run from left to right. */
export function fillCss(fill: Fill | null | undefined): string {
  if (!fill) return 'transparent'
  if (fill.kind === 'plain') return colourOf(fill.colour)
  const stops = (fill.stops ?? [])
    .map((stop) => ({ colour: colourOf(stop.colour), at: Number(valueAt(stop.at, 0) ?? 0) }))
    .sort((a, b) => a.at - b.at)
  if (stops.length < 2) return stops[0]?.colour ?? GREY
  const list = stops.map((stop) => `${stop.colour} ${Math.round(stop.at * 100)}%`).join(', ')
  return `linear-gradient(to right, ${list})`
}
