import createClient, { type Middleware } from 'openapi-fetch'
import { inLanguage, t } from '@/texts'
import { fetchTwice } from './persistent'
import { reachable } from './reach'
import type { components, paths } from './schema'

export type Schemas = components['schemas']
export type Problem = Schemas['Problem']

/** An answer of the server that says what went wrong, what is safe and what to do. */
export class ServerError extends Error {
  constructor(
    readonly problem: Problem,
    readonly status: number,
    /** All of the answer. */
    readonly body: unknown = null,
  ) {
    super(problem.message)
  }
}

const OFFLINE: Problem = {
  code: 'offline',
  message: t('api.client.theServerCannotBeReached'),
  safe: t('api.client.everythingUpToHereIs'),
  todo: t('api.client.checkTheConnectionStepsAre'),
}

const UNEXPECTED: Problem = {
  code: 'unexpected',
  message: t('api.client.theServerGaveAnAnswer'),
  safe: t('api.client.yourProjectIsUnchanged'),
  todo: t('api.client.tryAgain'),
}

export function csrfToken(): string {
  return /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? ''
}

const withToken: Middleware = {
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-CSRFToken', csrfToken())
    return request
  },
  onResponse({ request }) {
    if (request.method !== 'GET') reachable.value = true
  },
}

export const client = createClient<paths>({
  baseUrl: '',
  fetch: (request: Request) => fetchTwice(request),
})
client.use(withToken)

/** The error of an answer, in our own form whatever came. */
export async function errorOf(response: Response): Promise<ServerError> {
  try {
    const told = inLanguage((await response.json()) as Partial<Problem>)
    if (typeof told.message === 'string') {
      return new ServerError({ ...UNEXPECTED, ...told }, response.status)
    }
  } catch {
    // No JSON: the general message says enough.
  }
  return new ServerError(UNEXPECTED, response.status)
}

interface Answer<T> {
  data?: T
  error?: unknown
  response: Response
}

/** The data of an answer, or a thrown `ServerError`. */
export async function need<T>(asked: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>
  try {
    answer = await asked
  } catch {
    reachable.value = false
    throw new ServerError(OFFLINE, 0)
  }
  if (answer.error !== undefined || !answer.response.ok) {
    const told = inLanguage(answer.error as Partial<Problem> | undefined)
    throw new ServerError({ ...UNEXPECTED, ...told }, answer.response.status, answer.error)
  }
  return inLanguage(answer.data as T)
}

/** Bytes by a plain request (pictures and pieces, which the typed client does not carry). */
export async function needBytes(
  url: string,
  init: RequestInit = {},
  reads?: boolean,
): Promise<ArrayBuffer> {
  let response: Response
  try {
    const headers = { 'X-CSRFToken': csrfToken(), ...init.headers }
    response = await fetchTwice(url, { ...init, headers }, reads)
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error
    reachable.value = false
    throw new ServerError(OFFLINE, 0)
  }
  if (init.method === 'POST') reachable.value = true
  if (!response.ok) throw await errorOf(response)
  return response.arrayBuffer()
}

/** What the server reads a file as. */
export async function upload<T>(path: string, file: File): Promise<T> {
  const body = new FormData()
  body.set('file', file)
  const headers = { 'X-CSRFToken': csrfToken() }
  const response = await fetch(path, { method: 'POST', body, headers })
  if (!response.ok) throw await errorOf(response)
  return (await response.json()) as T
}
