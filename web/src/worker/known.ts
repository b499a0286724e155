/** What is kept to be looked at without a line: lists, documents, what they are made with, posters. */
const PATHS = [
  /^\/api\/(session|choices)$/,
  /^\/api\/projects(\/[^/]+(\/(takes|shelves|exports))?)?$/,
  /^\/api\/kit\/[^/]+$/,
  /^\/api\/takes\/[^/]+\/files\/(poster|strip)\.jpg$/,
]

export function isKnown(path: string): boolean {
  return PATHS.some((one) => one.test(path))
}
