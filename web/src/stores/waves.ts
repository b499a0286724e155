import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'

/** How sound is drawn on the timeline: both sides apart, heights in decibels. */
export interface WaveLook {
  apart: boolean
  decibels: boolean
}

/** Kept on the device, as it concerns the eyes of one person only. */
export const useWaves = defineStore('waves', () => {
  const look = useLocalStorage<WaveLook>('velvet-kite.waves', { apart: false, decibels: false })
  return { look }
})
