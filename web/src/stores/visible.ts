/** Parts of a document that neither picture nor sound depend on. */
const UNSEEN =
  /^\/markers(\/|$)|\/clips\/\d+\/(markers(\/.*)?|name|tag|rides)$|^\/tracks\/\d+\/(name|locked)$/

/** Whether a patch changes anything that is seen or heard. */
export function changesPicture(patch: readonly { path?: unknown }[]): boolean {
  return patch.some(({ path }) => typeof path !== 'string' || !UNSEEN.test(path))
}
