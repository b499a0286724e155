import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { PicturedClip } from '@/api/types'
import type { Map6 } from '@/api/types'

export type LayerPart =
  'look' | 'content' | 'key' | 'masks' | 'effects' | 'follow' | 'retouch' | 'cutout'

/** What Layer shows on the picture, and what is worked on there. */
export const useLayering = defineStore('layering', () => {
  const part = ref<LayerPart>('look')
  const matte = ref(false)
  /** Whether only what lies around faces is shown, to see what is covered of them. */
  const check = ref(false)
  /** Index of the mask in hand among the layer's masks. */
  const mask = ref(0)
  /** Id of the effect whose values are shown. */
  const effect = ref('')
  /** Path of the fill whose ends are handled on the picture: `fill`, `stroke/fill`; or not chosen. */
  const fill = ref('')
  /** How closely a line drawn by hand is followed, in canvas pixels. */
  const smoothness = useLocalStorage('velvet-kite.smoothness', 6)
  const drawn = useLocalStorage('velvet-kite.drawn', { colour: '#fff4e2', width: 14 })
  /** A tapped spot in canvas pixels, until somebody has taken it. */
  const tapped = ref<{ x: number; y: number } | null>(null)
  /** Width and height of texts and shapes in canvas pixels, by clip. */
  const extents = ref<Record<string, [number, number]>>({})
  /** Left, top, right and bottom of what is drawn, from the middle of its clip. */
  const bodies = ref<Record<string, [number, number, number, number]>>({})
  /** From where a layer's own place puts it to where it is shown, of those that are moved besides. */
  const moved = ref<Record<string, Map6>>({})
  /** The part of that which is done by what a layer follows. */
  const led = ref<Record<string, Map6>>({})

  /** That path for a clip: of itself the fill, but a pen path's own points come first. */
  function fillOf(clip: PicturedClip | null): string {
    const pens = clip?.kind === 'shape' && clip.form?.kind === 'path'
    return fill.value || (pens ? '' : 'fill')
  }

  function leave() {
    matte.value = false
    check.value = false
    tapped.value = null
  }

  return {
    part,
    matte,
    check,
    mask,
    effect,
    fill,
    smoothness,
    drawn,
    tapped,
    extents,
    bodies,
    moved,
    led,
    fillOf,
    leave,
  }
})
