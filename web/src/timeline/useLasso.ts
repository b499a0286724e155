import { computed, ref } from 'vue'

const HOLD = 320
/** Milliseconds after which a finger resting on an empty place draws a lasso. */
const SLOP = 6

interface Corner {
  x: number
  y: number
}

/** A rectangle drawn over the timeline; what it touches is taken in hand. Client coordinates. */
export function useLasso(take: (box: DOMRect) => void) {
  const from = ref<Corner | null>(null)
  const to = ref<Corner | null>(null)
  let pressed: Corner | null = null
  let holding = 0

  const box = computed(() => {
    if (!from.value || !to.value) return null
    const { x, y } = from.value
    return new DOMRect(
      Math.min(x, to.value.x),
      Math.min(y, to.value.y),
      Math.abs(x - to.value.x),
      Math.abs(y - to.value.y),
    )
  })

  function down(event: PointerEvent) {
    pressed = { x: event.clientX, y: event.clientY }
    if (event.pointerType !== 'touch') return
    holding = window.setTimeout(() => {
      if (!pressed) return
      from.value = to.value = pressed
      navigator.vibrate?.(12)
    }, HOLD)
  }

  function move(event: PointerEvent) {
    if (!pressed) return
    const far = Math.hypot(event.clientX - pressed.x, event.clientY - pressed.y) > SLOP
    if (!from.value) {
      if (!far) return
      if (event.pointerType === 'touch') return forget()
      from.value = pressed
    }
    to.value = { x: event.clientX, y: event.clientY }
    if (box.value) take(box.value)
  }

  /** True if a lasso was drawn. */
  function up(): boolean {
    const drawn = from.value !== null
    forget()
    return drawn
  }

  function forget() {
    window.clearTimeout(holding)
    pressed = from.value = to.value = null
  }

  return { box, down, move, up, forget, holds: () => from.value !== null }
}
