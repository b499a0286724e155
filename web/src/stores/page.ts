import { defineStore } from 'pinia'
import { ref } from 'vue'

/** What a bench asks of the page on a phone. */
export const usePage = defineStore('page', () => {
  /** Whether it takes the place of picture and timeline too. */
  const whole = ref(false)
  return { whole }
})
