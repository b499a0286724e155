import { computed, ref, type Ref } from 'vue'
import { arrowWay } from '@/controls/arrows'
import { t } from '@/texts'
import type { DrawnPoint, Point } from './placing'

/** Pixels of the screen that an arrow key moves the pen, and with Shift. */
const STEP = { fine: 4, wide: 20 }

/** The pen of a sheet by keys: arrows move it, Space sets it down and lifts it, Escape forgets the line. */
export function usePenKeys(
  size: () => { width: number; height: number },
  points: Ref<DrawnPoint[]>,
  drawn: () => void,
) {
  const pen = ref<Point | null>(null)
  const told = computed(() => {
    if (!pen.value) return ''
    const { width, height } = size()
    const place = {
      across: Math.round((100 * pen.value.x) / width),
      down: Math.round((100 * pen.value.y) / height),
    }
    return points.value.length
      ? t('picture.usePenKeys.draws', place)
      : t('picture.usePenKeys.standsAbove', place)
  })

  const inside = (value: number, most: number) => Math.min(Math.max(value, 0), most)

  function appear() {
    const { width, height } = size()
    pen.value ??= { x: width / 2, y: height / 2 }
    return pen.value
  }

  function move([across, up]: [number, number], step: number) {
    const { width, height } = size()
    const from = appear()
    pen.value = {
      x: inside(from.x + across * step, width),
      y: inside(from.y - up * step, height),
    }
    if (points.value.length) points.value.push(pen.value)
  }

  function press(event: KeyboardEvent) {
    const way = arrowWay(event)
    if (way) move(way, event.shiftKey ? STEP.wide : STEP.fine)
    else if (event.key === ' ' && points.value.length) drawn()
    else if (event.key === ' ') points.value = [appear()]
    else if (event.key === 'Escape' && points.value.length) points.value = []
    else return
    event.preventDefault()
    event.stopPropagation()
  }

  return { pen, told, appear, press, leave: () => (pen.value = null) }
}
