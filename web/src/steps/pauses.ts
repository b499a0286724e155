import { ServerError } from '@/api/client'

const SIGNED_OUT = [401, 403]
const PASSING = [0, 429, 502, 503, 504, 507]
const FIRST = 500
const LONGEST = 30_000

/** Whether the same question may well be answered later: the line or the server is away. */
export function passes(error: unknown): boolean {
  return error instanceof ServerError && PASSING.includes(error.status)
}

export function isSignedOut(error: unknown): boolean {
  return error instanceof ServerError && SIGNED_OUT.includes(error.status)
}

/** Milliseconds before the next attempt after `tries` that failed: each about twice the last. */
export function pauseAfter(tries: number, chance = Math.random()): number {
  return Math.min(LONGEST, FIRST * 2 ** (tries - 1)) * (0.8 + 0.4 * chance)
}

/** Wait before the next attempt, or until the browser is online again or somebody asks for it. */
export function pause(tries: number, asked: AbortSignal): Promise<void> {
  return new Promise((done) => {
    const end = () => {
      window.clearTimeout(timer)
      window.removeEventListener('online', end)
      asked.removeEventListener('abort', end)
      done()
    }
    const timer = window.setTimeout(end, pauseAfter(tries))
    window.addEventListener('online', end)
    asked.addEventListener('abort', end)
  })
}
