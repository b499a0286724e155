import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref } from 'vue'

/** Whose sound is worked on: what is in hand, the film, or a track by its id. */
export const CLIP = 'clip'
export const FILM = 'film'

export type MixPart = 'clip' | 'strip' | 'chain' | 'pauses' | 'beats' | 'under' | 'loudness'

export const useMixing = defineStore('mixing', () => {
  const owner = ref<string>(FILM)
  const part = ref<MixPart>('loudness')
  /** Id of the insert whose values are shown. */
  const insert = ref('')
  /** Which loudness the line shows. */
  const line = useLocalStorage<'momentary' | 'short'>('velvet-kite.loudness', 'short')
  /** Whether sounds in hand show their gain and fades on the timeline. */
  const open = ref(false)
  return { owner, part, insert, line, open }
})
