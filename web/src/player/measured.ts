import type { Schemas } from '@/api/client'

export type ScopesWanted = Schemas['ScopesWanted']
export type ScopeArray = NonNullable<ScopesWanted['scopes']>[number]

/** Counts of a scope: `shape` from the outermost axis in. */
export interface Counts {
  shape: number[]
  data: Uint8Array | Uint32Array
}

/** What was measured of a picture. */
export interface Measured {
  crushed: number
  clipped: number
  pixels: number
  scopes: Partial<Record<ScopeArray, Counts>>
}

interface Facts {
  crushed: number
  clipped: number
  pixels: number
  jpeg: number
  arrays: { scope: ScopeArray; shape: number[]; wide: boolean }[]
}

/** An answer that holds a picture and its scopes (see `kitecore.render.instruments`). */
export function unpacked(bytes: ArrayBuffer): { jpeg: ArrayBuffer; measured: Measured } {
  const length = new DataView(bytes).getUint32(0, true)
  const facts = JSON.parse(new TextDecoder().decode(new Uint8Array(bytes, 4, length))) as Facts
  let at = 4 + length
  const jpeg = bytes.slice(at, (at += facts.jpeg))
  const scopes: Measured['scopes'] = {}
  for (const { scope, shape, wide } of facts.arrays) {
    const many = shape.reduce((a, b) => a * b, 1)
    const part = bytes.slice(at, (at += many * (wide ? 4 : 1)))
    scopes[scope] = { shape, data: wide ? new Uint32Array(part) : new Uint8Array(part) }
  }
  const { crushed, clipped, pixels } = facts
  return { jpeg, measured: { crushed, clipped, pixels, scopes } }
}
