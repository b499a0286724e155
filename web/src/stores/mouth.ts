import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import { useProject } from './project'

/** A pose that was tapped while the film played, at a frame of it. */
export interface PoseTap {
  frame: number
  pose: string
}

/** What a tap on a pose changes: from the playhead on, the stretch it stands in, or all like that. */
export type PoseChange = 'from-here' | 'stretch' | 'alike'

/** Work on the mouth in hand. */
export const useMouth = defineStore('mouth', () => {
  const project = useProject()
  const change = ref<PoseChange>('from-here')
  const taps = ref<PoseTap[]>([])
  /** The tracks with its voice, by mouth; all where none is named. */
  const voices = ref<Record<string, string[]>>({})
  /** What is said, by mouth. */
  const words = ref<Record<string, string>>({})
  const language = ref('en')
  /** What a digit does; there is something while the bench takes it. */
  const taker = ref<((index: number) => void) | null>(null)

  watch(
    () => project.id,
    () => {
      voices.value = {}
      words.value = {}
    },
  )
  const tap = (index: number) => taker.value?.(index)

  return { change, taps, voices, words, language, taker, tap }
})
