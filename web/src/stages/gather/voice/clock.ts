/** When a block of samples was heard of, and when by it the recording began; in milliseconds. */
export interface Heard {
  came: number
  begun: number
}

/** Blocks on either side by which one is judged: about half a second of blocks of 2048 samples. */
const AROUND = 12

/**
 * Seconds of a recording that had passed at each of some moments, given in milliseconds and in order.
 *
 * A busy page hears of a block late, never early: of those around, the one that came soonest tells. Only
 * of those around, for a busy machine also loses samples, and from there on everything is later.
 */
export function recordedAt(blocks: Heard[], moments: number[]): number[] {
  const begins = blocks.map((_, at) =>
    Math.min(...blocks.slice(Math.max(at - AROUND, 0), at + AROUND + 1).map(({ begun }) => begun)),
  )
  let block = 0
  return moments.map((moment) => {
    while ((blocks[block + 1]?.came ?? Infinity) <= moment) block += 1
    return (moment - (begins[block] ?? moment)) / 1000
  })
}
