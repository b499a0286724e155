import { nextTick, onBeforeUnmount, onMounted, ref, type Ref } from 'vue'
import { TICKS_PER_SECOND } from '@/api/types'
import { LEAST_ZOOM, mostZoom, scrollAfterZoom } from '@/timeline/scale'

const REST = 100
/** Milliseconds after the last change of scale when it counts as at rest. */

/**
 * Zoom and scroll of the timeline: by wheel with Ctrl, by two fingers, by buttons. `before` is what
 * lies left of the first tick, in pixels.
 */
export function useZoom(
  scroller: Ref<HTMLElement | null>,
  laneWidth: Ref<number>,
  before: () => number,
  /** Seconds of what is shown. */
  length: () => number,
  fingers: { holds(): boolean; forget(): void },
) {
  const zoom = ref(60)
  const scroll = ref(0)
  /** Whether the scale is changing: faces wait with being drawn until it rests. */
  const zooming = ref(false)
  let resting = 0
  let pinch = 0

  function scrollTo(px: number) {
    if (scroller.value) scroller.value.scrollLeft = px
  }

  function zoomBy(factor: number, pointer = laneWidth.value / 2) {
    const to = Math.min(mostZoom(length()), Math.max(LEAST_ZOOM, zoom.value * factor))
    const target = scrollAfterZoom(scroll.value, pointer, to / zoom.value)
    zoom.value = to
    zooming.value = true
    window.clearTimeout(resting)
    resting = window.setTimeout(() => (zooming.value = false), REST)
    nextTick(() => {
      scrollTo(target)
      scroll.value = target
    })
  }

  function showAll(length: number) {
    const seconds = length / TICKS_PER_SECOND
    const fitting = seconds ? (laneWidth.value - 24) / seconds : 60
    zoom.value = Math.min(240, Math.max(LEAST_ZOOM, fitting))
    scrollTo(0)
  }

  function fromEdge(clientX: number): number {
    return clientX - (scroller.value?.getBoundingClientRect().left ?? 0) - before()
  }

  function wheel(event: WheelEvent) {
    if (!event.ctrlKey && !event.metaKey) return
    event.preventDefault()
    zoomBy(Math.exp(-event.deltaY / 240), fromEdge(event.clientX))
  }

  /** Two fingers zoom; while one holds something the page does not scroll under it. */
  function touchMove(event: TouchEvent) {
    if (fingers.holds()) {
      event.preventDefault()
      return
    }
    const [a, b] = [event.touches[0], event.touches[1]]
    if (!a || !b) {
      pinch = 0
      return
    }
    event.preventDefault()
    fingers.forget()
    const apart = Math.hypot(a.clientX - b.clientX, a.clientY - b.clientY)
    if (pinch) zoomBy(apart / pinch, fromEdge((a.clientX + b.clientX) / 2))
    pinch = apart
  }

  function onScroll() {
    scroll.value = scroller.value?.scrollLeft ?? 0
  }

  onMounted(() => {
    scroller.value?.addEventListener('touchmove', touchMove, { passive: false })
    scroller.value?.addEventListener('touchend', () => (pinch = 0))
  })
  onBeforeUnmount(() => scroller.value?.removeEventListener('touchmove', touchMove))

  return { zoom, zooming, scroll, zoomBy, showAll, wheel, onScroll, scrollTo, fromEdge }
}
