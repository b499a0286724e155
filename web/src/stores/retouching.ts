import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import type { Spot } from '@/motion/quads'
import { useHand } from './hand'

export type RetouchTool = 'heal' | 'clone' | 'fill' | 'soften' | 'sharpen' | 'lighten' | 'darken'

/** How a picture is mended: with what, and which stroke is in hand. */
export const useRetouching = defineStore('retouching', () => {
  const hand = useHand()
  const tool = ref<RetouchTool>('heal')
  /** Values of strokes to come, by tool. */
  const brushes = useLocalStorage<Partial<Record<RetouchTool, Record<string, number>>>>(
    'velvet-kite.retouch',
    {},
  )
  /** Id of the stroke in hand. */
  const taken = ref('')
  /** The place that was picked to take the picture from, in heights of the picture. */
  const source = ref<Spot | null>(null)
  /** Which way it lies from the strokes, once one was painted. */
  const offset = ref<Spot | null>(null)
  /** Whether it goes on with each stroke, or every stroke begins at that place again. */
  const goesOn = useLocalStorage('velvet-kite.source-goes-on', true)

  function pick(spot: Spot | null) {
    source.value = spot
    offset.value = null
  }

  watch(
    () => hand.one?.clip.id,
    () => {
      taken.value = ''
      pick(null)
    },
  )
  return { tool, brushes, taken, source, offset, goesOn, pick }
})
