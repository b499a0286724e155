/**
 * `fetch`, asking a second time for what is only read when no answer comes: a phone that changes
 * its network breaks off what is under way, and the next request goes through. Some questions are too
 * long for an address, and are sent: they say that they only read.
 */
export async function fetchTwice(
  input: Parameters<typeof fetch>[0],
  init?: RequestInit,
  reads = methodOf(input, init) === 'GET',
): Promise<Response> {
  const first = input instanceof Request ? input.clone() : input
  try {
    return await fetch(first, init)
  } catch (error) {
    if (!reads || aborted(error)) throw error
    return fetch(input, init)
  }
}

function methodOf(input: Parameters<typeof fetch>[0], init?: RequestInit): string {
  return init?.method ?? (input instanceof Request ? input.method : 'GET')
}

function aborted(error: unknown): boolean {
  return error instanceof DOMException && error.name === 'AbortError'
}
