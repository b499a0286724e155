import { createSharedComposable, useMediaQuery } from '@vueuse/core'
import { watch } from 'vue'

/** Too narrow, or lying on its side too low, for bench and timeline beside a picture. */
const PHONE = '(max-width: 759px), (max-height: 520px)'
/** A phone that lies on its side. */
const LYING = '(max-height: 520px) and (min-aspect-ratio: 1/1)'

/** Whether the page is laid out for one hand; styles know it by `.phone` at the root of the page. */
export const usePhone = createSharedComposable(() => {
  const phone = useMediaQuery(PHONE)
  const lying = useMediaQuery(LYING)
  const root = document.documentElement.classList
  watch(
    [phone, lying],
    () => {
      root.toggle('phone', phone.value)
      root.toggle('lying', phone.value && lying.value)
    },
    { immediate: true },
  )
  return { phone, lying }
})
