import { StorageSerializers, useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import type { Clip, Effect, LayerKey, Step, Track } from '@/api/types'
import type { InHand } from '@/stores/hand'
import type { Key } from '@/motion/keys'

/** Keys of one property; their times count from the first of all that were copied. */
export interface CopiedKeys {
  path: string
  keys: Key[]
}

type Sheet = Schemas['Sheet']

interface Copied {
  clip: Clip
  lane: number
  of: Track['kind']
}

/** Copied clips; kept in the browser, so that they can be pasted in another project or tab. */
export const useClipboard = defineStore('clipboard', () => {
  const copies = useLocalStorage<Copied[]>('velvet-kite.copied', [])
  /** The canvas that they were copied from. */
  const sheet = useLocalStorage<Sheet | null>('velvet-kite.copied-from', null, {
    serializer: StorageSerializers.object,
  })
  /** Copied effects, and a copied key, of layers. */
  const effects = useLocalStorage<Effect[]>('velvet-kite.copied-effects', [])
  const key = useLocalStorage<LayerKey | null>('velvet-kite.copied-key', null, {
    serializer: StorageSerializers.object,
  })
  const keys = useLocalStorage<CopiedKeys[]>('velvet-kite.copied-keys', [])
  const count = computed(() => copies.value.length)
  /** The clip whose settings others can be given. */
  const first = computed<Clip | null>(() => copies.value[0]?.clip ?? null)

  function copy(hand: InHand[], tracks: Track[], canvas: Sheet) {
    sheet.value = { width: canvas.width, height: canvas.height }
    copies.value = hand.map(({ clip, track }) => ({
      clip,
      lane: tracks.findIndex((one) => one.id === track.id),
      of: track.kind,
    }))
  }

  function pasteStep(at: number): Step {
    return { kind: 'paste', copies: copies.value, at, made_on: sheet.value }
  }

  return { count, first, effects, key, keys, copy, pasteStep }
})
