import { computed, ref } from 'vue'

/** A rectangle drawn over the timeline; what it touches is taken in hand. Client coordinates. */
export function useLasso(take: (box: DOMRect) => void) {
  const corners = ref<{ x: number; y: number }[]>([])

  const box = computed(() => {
    const [a, b] = corners.value
    if (!a || !b) return null
    const [left, top] = [Math.min(a.x, b.x), Math.min(a.y, b.y)]
    return new DOMRect(left, top, Math.abs(a.x - b.x), Math.abs(a.y - b.y))
  })

  /** From where a pointer went down to where it is. */
  function draw(from: { x: number; y: number }, to: { x: number; y: number }) {
    corners.value = [from, to]
    if (box.value) take(box.value)
  }

  return { box, draw, end: () => (corners.value = []) }
}
