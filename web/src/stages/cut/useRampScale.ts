import { useElementSize } from '@vueuse/core'
import { computed, ref, type Ref } from 'vue'
import type { PacedClip } from '@/api/types'
import { useTimeWindow } from '@/controls/useTimeWindow'
import { sourceOffset, speedAt, type Point } from '@/motion/speed'

/** Pixels around what is drawn. */
export const PAD = 14
const FASTEST = 8

export type RampView = 'speed' | 'source'

/** Height of a speed: even steps for doublings, so that 0.25 and 4 are equally easy to reach. */
const bent = (speed: number) => Math.sign(speed) * Math.log2(1 + Math.abs(speed))
const unbent = (height: number) => Math.sign(height) * (2 ** Math.abs(height) - 1)
const MOST = bent(FASTEST)

/** Where moments, speeds and source times of a ramp stand in its graph, and back. */
export function useRampScale(
  clip: () => PacedClip,
  points: Ref<Point[]>,
  soft: Ref<boolean>,
  view: Ref<RampView>,
  svg: Ref<SVGSVGElement | null>,
  tap: (tick: number) => void,
) {
  const { width, height: tall } = useElementSize(svg)
  const across = computed(() => Math.max(1, width.value - 2 * PAD))
  const down = computed(() => Math.max(1, tall.value - 2 * PAD))
  const time = useTimeWindow(
    () => ({ low: 0, high: clip().length }),
    () => ({ left: (svg.value?.getBoundingClientRect().left ?? 0) + PAD, width: across.value }),
    (x) => tap(toTick(inGraph({ clientX: x, clientY: 0 }).x)),
  )
  const toX = (tick: number) => {
    const { low, high } = time.shown.value
    return PAD + ((tick - low) / (high - low)) * across.value
  }
  const toTick = (x: number) => {
    const { low, high } = time.shown.value
    return Math.round(low + ((x - PAD) / across.value) * (high - low))
  }

  const at = (tick: number) => sourceOffset(points.value, soft.value, tick)
  const all = computed(() => {
    const low = points.value.some((point) => point.speed < 0) ? -MOST : 0
    if (view.value === 'speed') return { low, high: MOST }
    const offsets = Array.from({ length: 65 }, (_, i) => at((i / 64) * clip().length))
    return { low: Math.min(0, ...offsets), high: Math.max(1, ...offsets) }
  })
  /** While something is dragged the scale stays as it was. */
  const frozen = ref<{ low: number; high: number } | null>(null)
  const range = computed(() => frozen.value ?? all.value)
  const hold = (held: boolean) => (frozen.value = held ? { ...range.value } : null)

  const toY = (height: number) => {
    const { low, high } = range.value
    return tall.value - PAD - ((height - low) / (high - low)) * down.value
  }
  const fromY = (y: number) => {
    const { low, high } = range.value
    return low + ((tall.value - PAD - y) / down.value) * (high - low)
  }
  const speedToY = (speed: number) => toY(bent(speed))
  function yToSpeed(y: number): number {
    const speed = unbent(fromY(y))
    const step = Math.abs(speed) < 1 ? 0.05 : 0.1
    return Math.round(Math.min(FASTEST, Math.max(-FASTEST, speed)) / step) * step
  }

  /** Height of the curve at a tick. */
  const y = (tick: number) =>
    view.value === 'source' ? toY(at(tick)) : speedToY(speedAt(points.value, soft.value, tick))

  function inGraph(spot: { clientX: number; clientY: number }) {
    const box = svg.value?.getBoundingClientRect()
    return { x: spot.clientX - (box?.left ?? 0), y: spot.clientY - (box?.top ?? 0) }
  }

  const curve = computed(() => {
    const { low, high } = time.shown.value
    return Array.from({ length: 129 }, (_, i) => {
      const tick = low + (i / 128) * (high - low)
      return `${toX(tick).toFixed(1)},${y(tick).toFixed(1)}`
    }).join(' ')
  })
  const lines = computed(() =>
    view.value === 'speed'
      ? [0, 0.5, 1, 2, 4, 8].map((speed) => ({ speed, y: speedToY(speed) }))
      : [],
  )
  const seen = (tick: number) => tick >= time.shown.value.low && tick <= time.shown.value.high

  return {
    width,
    height: tall,
    time,
    toX,
    toY,
    toTick,
    fromY,
    yToSpeed,
    y,
    at,
    inGraph,
    curve,
    lines,
    seen,
    hold,
  }
}

export type RampScale = ReturnType<typeof useRampScale>
