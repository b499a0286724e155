import { applyPatches, enablePatches, setAutoFreeze, type Objectish } from 'immer'

enablePatches()
setAutoFreeze(false)

/** An operation of a JSON Patch (RFC 6902) as the server writes them. */
export interface Operation {
  op: 'add' | 'remove' | 'replace'
  path: string
  value?: unknown
}

/**
 * A document after a JSON Patch. It shares with the old one all that the patch leaves alone, so
 * only what changed is drawn anew.
 */
export function patched<T extends Objectish>(document: T, operations: readonly Operation[]): T {
  return applyPatches(
    document,
    operations.map(({ op, path, value }) => ({ op, path: partsOf(path), value })),
  )
}

/** The parts of a JSON Pointer (RFC 6901). */
function partsOf(pointer: string): string[] {
  return pointer
    .split('/')
    .slice(1)
    .map((part) => part.replaceAll('~1', '/').replaceAll('~0', '~'))
}
