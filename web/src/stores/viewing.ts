import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import type { ClockStyle } from '@/time'
import { useProject } from './project'

export type Guide = 'thirds' | 'safe' | 'grid'
/** How large the pictures are that play: chosen by what this machine keeps up with, or fixed. */
export type Quality = 'auto' | 'full' | 'half' | 'quarter'
/** Frames from one up to, not including, another. */
export interface Stretch {
  from: number
  to: number
}

const STYLES: ClockStyle[] = ['clock', 'timecode', 'frames']

/** How a person looks at films: what lies over the picture, how time is told, what plays again. */
export const useViewing = defineStore('viewing', () => {
  const project = useProject()
  const guides = useLocalStorage<Guide[]>('velvet-kite.guides', [])
  const clock = useLocalStorage<ClockStyle>('velvet-kite.clock', 'clock')
  const quality = useLocalStorage<Quality>('velvet-kite.quality', 'auto')
  /** What plays again and again, of the timeline that is open. */
  const loop = ref<Stretch | null>(null)

  /** The step of the history that is compared with what is now. */
  const compared = ref<{ revision: number; number: number } | null>(null)
  /** Where the bar between both stands, 0..1 of the width. */
  const split = ref(0.5)

  watch([() => project.id, () => project.within], () => (loop.value = null))
  watch(
    () => project.id,
    () => (compared.value = null),
  )
  watch(
    () => project.frames,
    (frames) => {
      const now = loop.value
      if (now && now.to > frames) {
        loop.value = now.from < frames - 1 ? { ...now, to: frames } : null
      }
    },
  )

  function toggleGuide(guide: Guide) {
    const rest = guides.value.filter((one) => one !== guide)
    guides.value = rest.length < guides.value.length ? rest : [...rest, guide]
  }

  function nextClock() {
    const next = STYLES[(STYLES.indexOf(clock.value) + 1) % STYLES.length]
    clock.value = next ?? 'clock'
  }

  return { guides, clock, quality, loop, compared, split, toggleGuide, nextClock }
})
