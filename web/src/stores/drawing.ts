import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'

/** What a finger does on the picture: handle what is there, or one of the tools. */
export type DrawingTool =
  | ''
  | 'pick'
  | 'brush'
  | 'pen'
  | 'freehand'
  | 'retouch'
  | 'source'
  | 'cut'
  | 'hair'
  | 'around'
  | 'person'

/** The tool with which a finger draws on the picture, and how it draws. */
export const useDrawing = defineStore('drawing', () => {
  const tool = ref<DrawingTool>('')
  const brush = useLocalStorage('velvet-kite.brush', { width: 0.08, softness: 0.4, erase: false })

  /** Where on the bench the point in hand is told and changed. */
  const bench = shallowRef<HTMLElement | null>(null)

  const put = (name: DrawingTool) => (tool.value = tool.value === name ? '' : name)

  return { tool, brush, bench, put }
})
