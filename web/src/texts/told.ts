/**
 * What the server tells in words: it writes English, and `en/told.json` holds all that it may tell,
 * with `{0}`, `{1}` where it puts something in (made by `tools/told.py`). Another language has a file
 * with the same keys; what that lacks stays as it came.
 */

/** What turns texts of one language, found by their templates, into those of another. */
export function teller(
  from: Record<string, string>,
  into: Record<string, string>,
): (text: string) => string {
  const known = new Map<string, string>()
  const whole = new Map(Object.entries(from).map(([key, text]) => [text, into[key]]))
  const patterns = Object.entries(from)
    .filter(([key, text]) => into[key] && /\{\d+\}/.test(text))
    .map(([key, text]) => ({ pattern: patternOf(text), into: into[key] ?? '' }))

  function find(text: string): string {
    const same = whole.get(text)
    if (same) return same
    for (const { pattern, into } of patterns) {
      const found = pattern.exec(text)
      if (found) return into.replace(/\{(\d+)\}/g, (_, at) => tell(found[Number(at) + 1] ?? ''))
    }
    return text
  }

  function tell(text: string): string {
    const told = known.get(text) ?? find(text)
    known.set(text, told)
    return told
  }
  return tell
}

function patternOf(template: string): RegExp {
  const parts = template.split(/\{\d+\}/).map((part) => part.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'))
  return new RegExp(`^${parts.join('(.+?)')}$`, 's')
}

/** Fields of answers that are words for people. What a person named is in none of them. */
const WORDS = ['message', 'safe', 'todo', 'help', 'label']
/** Besides, in what describes parameters: elsewhere a title is one that a person gave. */
export const DESCRIBED = [...WORDS, 'title']
/** Fields in which there is only what people made, and much of it. */
const MADE = new Set(['document', 'patch'])

/** An answer with its words told by `tell`; the same object where there are none. */
export function toldIn<T>(data: T, tell: (text: string) => string, words = WORDS): T {
  if (Array.isArray(data)) return data.map((one) => toldIn(one, tell, words)) as T
  if (typeof data !== 'object' || data === null) return data
  const entries = Object.entries(data).map(([key, value]) => {
    if (MADE.has(key)) return [key, value]
    const said = typeof value === 'string' && words.includes(key)
    return [key, said ? tell(value) : toldIn(value, tell, words)]
  })
  return Object.fromEntries(entries) as T
}
