/** Ticks of a file at which a thing was seen, and within which it is followed. */
interface Span {
  views: readonly { at: number }[]
  first: number
  last: number
}

/** The part that is followed when so much of the work is done: from the first view back, from the last
 * one on, then between them to and fro. What lies between views is in it all the same.
 */
export function reached<T extends Span>(wanted: T, share: number): T {
  const moments = wanted.views.map(({ at }) => at)
  const [low, high] = [Math.min(...moments), Math.max(...moments)]
  const [back, ahead] = [low - wanted.first, wanted.last - high]
  const done = share * (back + ahead + 2 * (high - low))
  const first = low - Math.min(done, back)
  const last = high + Math.min(Math.max(done - back, 0), ahead)
  return { ...wanted, first: Math.round(first), last: Math.round(last) }
}
