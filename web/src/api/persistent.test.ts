import { afterEach, expect, test, vi } from 'vitest'
import { fetchTwice } from './persistent'

afterEach(() => vi.unstubAllGlobals())

/** A network that breaks off the first requests. */
function broken(times: number, by: unknown = new TypeError('Failed to fetch')) {
  const fetch = vi.fn()
  for (let i = 0; i < times; i += 1) fetch.mockRejectedValueOnce(by)
  fetch.mockImplementation(async () => new Response('seen'))
  vi.stubGlobal('fetch', fetch)
  return fetch
}

test('what is read is asked for again when the network changes', async () => {
  const fetch = broken(1)
  expect(await (await fetchTwice('http://site/still')).text()).toBe('seen')
  expect(await (await fetchTwice(new Request('http://site/still'))).text()).toBe('seen')
  expect(fetch).toHaveBeenCalledTimes(3)
})

test('a network that stays away is told', async () => {
  broken(2)
  await expect(fetchTwice('http://site/still')).rejects.toThrow('Failed to fetch')
})

test('what changes something is not sent twice', async () => {
  const fetch = broken(1)
  await expect(fetchTwice('http://site/edits', { method: 'POST' })).rejects.toThrow()
  await expect(
    fetchTwice(new Request('http://site/edits', { method: 'POST' })),
  ).resolves.toBeTruthy()
  expect(fetch).toHaveBeenCalledTimes(2)
})

test('a question that is sent is asked again if it says that it only reads', async () => {
  const fetch = broken(1)
  const answer = await fetchTwice('http://site/still', { method: 'POST', body: '{}' }, true)
  expect(await answer.text()).toBe('seen')
  expect(fetch).toHaveBeenCalledTimes(2)
})

test('what was let go of is not asked for again', async () => {
  const fetch = broken(1, new DOMException('let go', 'AbortError'))
  await expect(fetchTwice('http://site/still')).rejects.toThrow('let go')
  expect(fetch).toHaveBeenCalledTimes(1)
})
