import { defineStore } from 'pinia'
import { ref } from 'vue'

/** What a bench asks of the page, and what it has made of its room. */
export const usePage = defineStore('page', () => {
  /** On a phone: whether it takes the place of picture and timeline too. */
  const whole = ref(false)
  /** On larger pages: whether its first panel is not to be seen now, for want of width. */
  const leftAway = ref(false)
  return { whole, leftAway }
})
