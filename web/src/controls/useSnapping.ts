import { createSharedComposable, useEventListener, useLocalStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'

/** Pixels of the screen from which anything is drawn to a line, a join, an angle. */
export const SNAP_REACH = 8

/** Whether things dragged snap: a switch of one's own, and Alt holds it off. */
export const useSnapping = createSharedComposable(() => {
  const on = useLocalStorage('velvet-kite.snapping', true)
  const heldOff = ref(false)
  const told = (event: KeyboardEvent | PointerEvent) => (heldOff.value = event.altKey)
  useEventListener(window, 'keydown', told)
  useEventListener(window, 'keyup', told)
  useEventListener(window, 'pointermove', told)
  useEventListener(window, 'blur', () => (heldOff.value = false))
  const active = computed(() => on.value && !heldOff.value)
  return { on, active }
})

/** Felt on devices that can, as something comes to what it snaps to. */
export function useFelt(snapped: () => unknown) {
  watch(snapped, (now, before) => {
    if (now && now !== before) navigator.vibrate?.(8)
  })
}
