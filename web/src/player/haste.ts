/** Milliseconds in which a picture comes while a finger moves: twenty a second. */
const BUDGET = 50
/** Milliseconds of a picture that are the same at every size. */
const FIXED = 20
/** Milliseconds without a question after which nobody is in haste any more. */
export const PAUSE = 150
/** Shares of the whole side that are asked for in haste. */
const SHARES = [1, 2 / 3, 1 / 2, 1 / 3]

/** The largest share at which a picture comes in time, if a whole one costs so many milliseconds. */
export function shareFor(cost: number): number {
  const inTime = (share: number) => FIXED + (cost - FIXED) * share ** 2 <= BUDGET
  return SHARES.find(inTime) ?? SHARES[SHARES.length - 1] ?? 1
}

/**
 * How large stills are asked for: whole, or, while one question follows another, as large as comes
 * fast enough by what the pictures before took.
 */
export function useHaste(now: () => number = () => performance.now()) {
  let cost = 0
  let asked = -Infinity

  return {
    /** Whether a question now follows another one; asked once for each. */
    hastens(): boolean {
      const before = asked
      asked = now()
      return asked - before < PAUSE
    },
    share: () => shareFor(cost),
    /** A picture of a share of the whole side took so many milliseconds. */
    took(milliseconds: number, share: number) {
      cost = FIXED + (milliseconds - FIXED) / share ** 2
    },
  }
}
