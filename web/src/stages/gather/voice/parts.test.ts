import { expect, test } from 'vitest'
import { spokenParts, stallsIn, type Moment } from './parts'

/** The film every 16 ms from a second on, beginning a third of a second into the recording. */
function watched(seconds: number, stalls: { at: number; long: number }[] = []): Moment[] {
  const moments: Moment[] = []
  for (let film = 1; film < 1 + seconds; film += 0.016) {
    const stood = stalls.filter(({ at }) => film >= at).reduce((sum, { long }) => sum + long, 0)
    moments.push({ recorded: 1 / 3 + (film - 1) + stood, film })
  }
  return moments
}

test('a recording begins where the film did, without what came before and the delay', () => {
  const [part, ...more] = spokenParts(watched(2), 30, 0.02, 3)
  expect(more).toEqual([])
  expect(part?.frame).toBe(31)
  expect(part?.from).toBeCloseTo(1 / 3 + 1 / 30 + 0.02, 3)
  // To the end of the recording, in whole frames.
  expect(part?.frames).toBe(Math.floor((3 - (part?.from ?? 0)) * 30))
})

test('while the picture stands still nothing is laid, and what comes after is where it was said', () => {
  const parts = spokenParts(watched(4, [{ at: 2.5, long: 0.8 }]), 30, 0, 6)
  expect(parts).toHaveLength(2)
  const [first, then] = parts
  expect(stallsIn(parts, 30)).toBe(1)
  const short = spokenParts(watched(4, [{ at: 2.5, long: 0.04 }]), 30, 0, 6)
  expect([short.length, stallsIn(short, 30)]).toEqual([2, 0])
  expect((first?.frame ?? 0) + (first?.frames ?? 0)).toBe(then?.frame)
  // Of each frame of the film what was recorded at it.
  expect((then?.from ?? 0) - (then?.frame ?? 0) / 30).toBeCloseTo(1 / 3 - 1 + 0.8, 3)
})

test('a clock that jitters is no stall, and a film that never ran is no part', () => {
  const moments = watched(2).map(({ recorded, film }, at) => ({
    recorded: recorded + (at % 3) * 0.01,
    film,
  }))
  expect(spokenParts(moments, 25, 0, 3)).toHaveLength(1)
  const still = moments.map(({ recorded }) => ({ recorded, film: 1 }))
  expect(spokenParts(still, 25, 0, 3)).toEqual([])
  expect(spokenParts([], 25, 0, 3)).toEqual([])
})
