import { computed } from 'vue'
import { useScreen } from '@/player/inject'
import { frameOfMask, type Frame } from './masks'
import { thinned, type DrawnPoint, type Point } from './placing'
import { usePlacing } from './usePlacing'

/** A line on a picture, as brushes are kept: in heights of it, from its middle. */
export interface Drawn {
  points: [number, number][]
  pressures: number[]
}

const exact = (value: number) => Math.round(value * 1e5) / 1e5

/** A spot of the screen in the measure of a frame. */
export function spotOf(frame: Frame, point: Point): [number, number] {
  const { x, y } = frame.back(point)
  return [exact(x), exact(y)]
}

/** A line that was drawn on the screen in the measure of a frame. */
export function drawnOn(frame: Frame, points: DrawnPoint[]): Drawn {
  const kept = thinned(points)
  return {
    points: kept.map((point) => spotOf(frame, point)),
    pressures: kept.flatMap(({ pressure }) => (pressure === undefined ? [] : [exact(pressure)])),
  }
}

/** Pixels of the screen of a length of a frame; of no frame, that of a thin line. */
export function lengthOn(frame: Frame | null, length: number): number {
  if (!frame) return 10
  const [a, b] = [frame.to({ x: 0, y: 0 }), frame.to({ x: length, y: 0 })]
  return Math.hypot(a.x - b.x, a.y - b.y)
}

/** Where the picture in hand is on a screen so wide: its place, and the way from its own measure. */
export function usePictureFrame(width: () => number) {
  const { player } = useScreen()
  const scale = computed(() => width() / placing.canvas.value.width)
  const placing = usePlacing(
    player,
    computed(() => scale.value),
  )
  /** From heights of the picture, from its middle, to the screen. */
  const frame = computed<Frame | null>(() => {
    const [size, corners] = [placing.size.value, placing.corners.value]
    return size && corners ? frameOfMask(corners, size.width / size.height, scale.value) : null
  })
  return { placing, scale, frame }
}
