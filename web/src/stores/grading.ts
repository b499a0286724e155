import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref } from 'vue'

export type GradeTool = '' | 'neutral' | 'hue' | 'box'

/** What Grade shows on the picture and what a finger does there. */
export const useGrading = defineStore('grading', () => {
  const tool = ref<GradeTool>('')
  /** Id of the zone that is worked on; empty for the whole picture. */
  const zone = ref('')
  /** Index of the mask in hand among the zone's masks. */
  const mask = ref(0)
  const matte = ref(false)
  /** Where the wipe between before and after stands, 0..1 of the width; null without. */
  const wipe = ref<number | null>(null)
  /** The measured part of the picture, in shares: left, top, right, bottom. */
  const box = ref<[number, number, number, number] | null>(null)
  const marks = useLocalStorage('velvet-kite.marks', false)
  /** Whether a scope lies over the picture, where it has no place beside the controls. */
  const banded = useLocalStorage('velvet-kite.scope-banded', true)
  /** Whether scopes count levels of 10 bits. */
  const deep = useLocalStorage('velvet-kite.scopes-deep', false)
  /** A tapped spot in canvas pixels, until somebody has taken it. */
  const tapped = ref<{ x: number; y: number } | null>(null)

  function whole() {
    zone.value = ''
    mask.value = 0
    matte.value = false
  }

  function leave() {
    tool.value = ''
    wipe.value = null
    matte.value = false
  }

  return { tool, zone, mask, matte, wipe, box, marks, banded, deep, tapped, whole, leave }
})
