import { useElementSize } from '@vueuse/core'
import { computed, ref, type Ref } from 'vue'
import { TICKS_PER_SECOND } from '@/api/types'
import { useDraft } from '@/controls/useDraft'
import { useTimeWindow } from '@/controls/useTimeWindow'
import { isKeyed, type Keyed } from '@/motion/keys'
import { useScreen } from '@/player/inject'
import type { Properties } from '@/inhand/useProperties'
import { useMoving } from '@/stores/moving'
import { startOf, useProject } from '@/stores/project'
import { tickOf } from '@/time'
import {
  axesOf,
  curveOf,
  handleAt,
  heightOf,
  linesOf,
  rangeOf,
  speedHandleAt,
  speedsOf,
  type Side,
} from './graph'

const LEFT = 46
const PAD = 12

/** A property's graph on the screen: its scales, curves, keys and handles. */
export function useGraph(
  props: { layer: Properties; path: string; step: number },
  svg: Ref<SVGSVGElement | null>,
  tap: (tick: number) => void,
) {
  const project = useProject()
  const moving = useMoving()
  const { player } = useScreen()
  const { width, height } = useElementSize(svg)

  const clip = computed(() => props.layer.clip.value)
  const kept = computed(() => {
    const prop = props.layer.prop(props.path)
    return isKeyed(prop) ? prop : null
  })
  const draft = useDraft<Keyed>(() => kept.value)
  const prop = computed(() => draft.value ?? kept.value)

  const axes = computed(() => axesOf(prop.value?.keys[0]?.value))
  const axis = computed(() => Math.min(moving.axis, Math.max(0, axes.value.length - 1)))
  const bySpeed = computed(() => moving.view === 'speed' && axes.value.length > 0)

  /** While something is dragged the scale stays as it was when that began. */
  const frozen = ref<{ low: number; high: number } | null>(null)
  /** From the first key or the start of the clip to the last or its end. */
  const whole = computed(() => {
    const ats = kept.value?.keys.map((key) => key.at) ?? []
    return {
      low: Math.min(0, ...ats),
      high: Math.max(clip.value?.length ?? 1, ...ats),
    }
  })
  const closeUp = useTimeWindow(
    () => whole.value,
    () => ({
      left: (svg.value?.getBoundingClientRect().left ?? 0) + LEFT,
      width: Math.max(1, width.value - LEFT - PAD),
    }),
    (x) => tap(xToTick(x - (svg.value?.getBoundingClientRect().left ?? 0))),
  )
  const time = closeUp.shown
  const curve = computed(() =>
    prop.value
      ? bySpeed.value
        ? speedsOf(prop.value, axis.value, time.value, TICKS_PER_SECOND)
        : curveOf(prop.value, axis.value, time.value)
      : [],
  )
  const other = computed(() => {
    if (!prop.value || axes.value.length !== 2 || bySpeed.value) return []
    return curveOf(prop.value, 1 - axis.value, time.value)
  })
  /** Handles that are shown, at their ticks and heights. */
  const ends = computed(() => {
    const now = prop.value
    if (!now || !axes.value.length) return []
    const few = now.keys.length <= 3
    return now.keys.flatMap((key, index) =>
      (few || inHand(key.at) ? (['before', 'after'] as Side[]) : []).flatMap((side) => {
        const at = bySpeed.value
          ? speedHandleAt(now, axis.value, index, side, TICKS_PER_SECOND)
          : handleAt(now, axis.value, index, side)
        return at ? [{ index, side, at }] : []
      }),
    )
  })
  /** The scale holds them too, so that each can be reached. */
  const reached = computed(() => ends.value.map((end) => end.at))
  const range = computed(
    () =>
      frozen.value ??
      rangeOf(
        [...curve.value, ...other.value, ...reached.value].map(([, y]) => y),
        axes.value.length ? props.step * 4 : 1,
      ),
  )

  const toX = (tick: number) =>
    LEFT +
    ((tick - time.value.low) / (time.value.high - time.value.low)) * (width.value - LEFT - PAD)
  const toY = (value: number) =>
    height.value -
    PAD -
    ((value - range.value.low) / (range.value.high - range.value.low)) * (height.value - 2 * PAD)
  const xToTick = (x: number) =>
    time.value.low + ((x - LEFT) / (width.value - LEFT - PAD)) * (time.value.high - time.value.low)
  const yToValue = (y: number) =>
    range.value.low +
    ((height.value - PAD - y) / (height.value - 2 * PAD)) * (range.value.high - range.value.low)

  const line = (points: [number, number][]) =>
    points.map(([x, y]) => `${toX(x).toFixed(1)},${toY(y).toFixed(1)}`).join(' ')
  const levels = computed(() => linesOf(range.value, 4))
  const seconds = computed(() =>
    linesOf(
      { low: time.value.low / TICKS_PER_SECOND, high: time.value.high / TICKS_PER_SECOND },
      5,
    ),
  )
  const playhead = computed(() => {
    if (!clip.value) return null
    const at = tickOf(player.frame.value, project.rate) - startOf(clip.value)
    return at >= time.value.low && at <= time.value.high ? toX(at) : null
  })

  const seen = (x: number) => x >= LEFT - 1 && x <= width.value - PAD + 1
  const named = (at: number) => ({ clip: clip.value?.id ?? '', path: props.path, at })
  const inHand = (at: number) => moving.holds(named(at))
  const spots = computed(() =>
    (prop.value?.keys ?? []).map((key, index) => ({
      key,
      index,
      x: toX(key.at),
      y: toY(bySpeed.value ? speedOfKey(index) : heightOf(prop.value as Keyed, axis.value, index)),
      taken: inHand(key.at),
    })),
  )
  function speedOfKey(index: number): number {
    const at = prop.value?.keys[index]?.at ?? 0
    const near = curve.value.reduce((a, b) => (Math.abs(b[0] - at) < Math.abs(a[0] - at) ? b : a))
    return near[1]
  }

  const handles = computed(() =>
    ends.value.map(({ index, side, at }) => ({
      index,
      side,
      x: toX(at[0]),
      y: toY(at[1]),
      from: spots.value[index],
    })),
  )

  return {
    LEFT,
    PAD,
    width,
    height,
    clip,
    draft,
    kept,
    prop,
    axes,
    axis,
    bySpeed,
    frozen,
    range,
    curve,
    other,
    toX,
    toY,
    xToTick,
    yToValue,
    line,
    levels,
    seconds,
    playhead,
    named,
    inHand,
    spots,
    handles,
    closeUp,
    seen,
  }
}
