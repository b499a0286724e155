import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref } from 'vue'

export type LayerPart = 'look' | 'content' | 'key' | 'masks' | 'effects'
/** What a finger does on the picture: handle layers, or one of the tools. */
export type LayerTool = '' | 'pick' | 'brush' | 'pen' | 'freehand'

/** What Layer shows on the picture, and what is worked on there. */
export const useLayering = defineStore('layering', () => {
  const part = ref<LayerPart>('look')
  const tool = ref<LayerTool>('')
  const matte = ref(false)
  /** Index of the mask in hand among the layer's masks. */
  const mask = ref(0)
  /** Path of the fill whose ends are handled on the picture: `fill`, `stroke/fill`, `outline`. */
  const fill = ref('fill')
  const brush = useLocalStorage('velvet-kite.brush', { width: 0.08, softness: 0.4, erase: false })
  /** How closely a line drawn by hand is followed, in canvas pixels. */
  const smoothness = useLocalStorage('velvet-kite.smoothness', 6)
  const drawn = useLocalStorage('velvet-kite.drawn', { colour: '#fff4e2', width: 14 })
  /** A tapped spot in canvas pixels, until somebody has taken it. */
  const tapped = ref<{ x: number; y: number } | null>(null)
  /** Width and height of texts and shapes in canvas pixels, by clip. */
  const extents = ref<Record<string, [number, number]>>({})

  function leave() {
    tool.value = ''
    matte.value = false
    tapped.value = null
  }

  return { part, tool, matte, mask, fill, brush, smoothness, drawn, tapped, extents, leave }
})
