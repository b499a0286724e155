import { useWindowSize } from '@vueuse/core'
import { computed, type Ref } from 'vue'
import { usePhone } from '@/look/phone'
import { LYING, PICTURE, ROW } from '@/look/place'

/** Pixels that a column beside the picture needs at least. */
const COLUMN = 60

/** How a phone's page is shared out, by the shape of the picture and of the page. */
export function phoneLayout(
  page: { width: number; height: number },
  shape: { width: number; height: number },
  lying: boolean,
): { beside: boolean; picture: number } {
  const aspect = shape.width / shape.height
  if (lying) {
    const wide = aspect > 1.15
    return wide
      ? { beside: false, picture: Math.round(page.width * LYING) }
      : { beside: true, picture: Math.round(page.height * aspect + 2 * COLUMN) }
  }
  const height = Math.round(page.height * PICTURE)
  const beside = (page.width - height * aspect) / 2 >= COLUMN
  return {
    beside,
    picture: beside ? height : Math.min(height, Math.round(page.width / aspect) + ROW),
  }
}

export function usePhoneLayout(shape: Ref<{ width: number; height: number } | undefined>) {
  const { phone, lying } = usePhone()
  const page = useWindowSize()
  const layout = computed(() =>
    phoneLayout(
      { width: page.width.value, height: page.height.value },
      shape.value ?? { width: 9, height: 16 },
      lying.value,
    ),
  )
  return { phone, lying, layout }
}
