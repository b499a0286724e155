import { expect, test, vi } from 'vitest'
import { ServerError } from '@/api/client'
import { isSignedOut, passes, pause, pauseAfter } from './pauses'

const error = (status: number) =>
  new ServerError({ code: '', message: 'no', safe: '', todo: '' }, status)

test('a line that is away passes, a refusal does not', () => {
  expect([0, 429, 502, 503, 504, 507].every((status) => passes(error(status)))).toBe(true)
  expect([400, 401, 404, 409, 422, 500].some((status) => passes(error(status)))).toBe(false)
  expect(passes(new Error('a mistake of ours'))).toBe(false)
  expect([401, 403].every((status) => isSignedOut(error(status)))).toBe(true)
})

test('pauses grow and are bounded, however chance falls', () => {
  const middle = Array.from({ length: 9 }, (_, n) => pauseAfter(n + 1, 0.5))
  expect(middle.slice(0, 4)).toEqual([500, 1000, 2000, 4000])
  expect(middle.at(-1)).toBe(30_000)
  expect([pauseAfter(1, 0), pauseAfter(1, 1)].map(Math.round)).toEqual([400, 600])
})

test('a pause ends at once when the browser is online again, or when asked', async () => {
  vi.stubGlobal('window', Object.assign(new EventTarget(), { setTimeout, clearTimeout }))
  const never = new AbortController()
  const online = pause(9, never.signal)
  window.dispatchEvent(new Event('online'))
  await online
  const asked = new AbortController()
  const hurried = pause(9, asked.signal)
  asked.abort()
  await hurried
})
