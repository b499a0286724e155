import { useEventListener } from '@vueuse/core'
import { computed, onScopeDispose, readonly, ref, shallowRef, toRef, watch, type Ref } from 'vue'
import type { Step } from '@/api/types'
import { Feeder } from './feeder'
import { useViewing, type Stretch } from '@/stores/viewing'
import { useSizing } from './sizing'
import { nextPace, shuttled } from './shuttle'
import type { Measured } from './measured'
import type { Source, StillAsk } from './source'
import { useStills } from './useStills'

/** Frames of a source whose sound was fetched. */
export interface Heard {
  of: Source
  first: number
  last: number
}

/** What of its base a source shows. */
const lookAt = (source: Source) => new URLSearchParams(source.query).toString()

interface Options {
  behind?: boolean
  /** What plays again and again, at its own speed. */
  loop?: Ref<Stretch | null>
}

/**
 * Shows a source: a still of the frame while paused (of several asked for only the newest is drawn),
 * moving pictures with sound while playing. With `behind` the playhead can stand behind the last
 * frame, which is then still shown: what is put there comes after it.
 */
export function usePlayer(
  source: Ref<Source | null>,
  canvas: Ref<HTMLCanvasElement | null>,
  video: Ref<HTMLVideoElement | null>,
  onProblem: (error: unknown) => void,
  { behind = false, loop = ref(null) }: Options = {},
) {
  const frame = ref(0)
  const playing = ref(false)
  const starting = ref(false)
  const speed = ref(1)
  const moving = ref(false)
  const drawn = ref(-1)
  const trial = shallowRef<{ step: Step | null; frame: number | null }>({ step: null, frame: null })
  /** What stills are to show and tell besides. */
  const asked = shallowRef<Pick<StillAsk, 'matte' | 'onion' | 'scopes'>>({})
  const measured = shallowRef<Measured | null>(null)
  /** The frames whose sound came last, at its own speed. */
  const heard = shallowRef<Heard | null>(null)
  const sizing = useSizing(toRef(useViewing(), 'quality'))
  let feeder: Feeder | null = null

  const last = computed(() => Math.max(0, (source.value?.frames ?? 0) - 1))
  const end = computed(() => (behind ? (source.value?.frames ?? 0) : last.value))
  /** The frame whose picture is shown. */
  const shown = computed(() => Math.min(frame.value, last.value))

  const { draw, sharpen } = useStills(
    () =>
      source.value?.frames && !playing.value
        ? {
            from: source.value,
            frame: trial.value.frame ?? frame.value,
            edit: trial.value.step,
            ...asked.value,
          }
        : null,
    (still) => {
      show(still.picture)
      drawn.value = still.frame
      if (still.measured) measured.value = still.measured
      if (!playing.value) moving.value = false
    },
    onProblem,
  )

  function show(bitmap: ImageBitmap) {
    const target = canvas.value
    if (!target) return
    if (target.width !== bitmap.width || target.height !== bitmap.height) {
      target.width = bitmap.width
      target.height = bitmap.height
    }
    target.getContext('2d')?.drawImage(bitmap, 0, 0)
    bitmap.close()
  }

  async function play(pace = 1) {
    const from = source.value
    if (!from?.frames || !video.value || playing.value) return
    const again = pace === 1 ? loop.value : null
    if (again && (frame.value < again.from || frame.value >= again.to)) frame.value = again.from
    if (pace > 0 && frame.value >= last.value) frame.value = 0
    if (pace < 0 && frame.value <= 0) frame.value = last.value
    const way = shuttled(from, pace, shown.value)
    if (way.source.frames < 1) return
    speed.value = pace
    playing.value = starting.value = true
    try {
      feeder = new Feeder(video.value, way.source, sizing, {
        frame(number) {
          if (!playing.value) return
          starting.value = false
          moving.value = true
          frame.value = way.shown(number)
          if (pace === 1 && loop.value && frame.value >= loop.value.to - 1) repeat(loop.value)
        },
        end() {
          if (pace === 1 && loop.value) return repeat(loop.value)
          frame.value = pace > 0 ? end.value : 0
          pause()
        },
        problem(error) {
          pause()
          onProblem(error)
        },
        heard(of, first, last) {
          if (pace === 1) heard.value = { of, first, last }
        },
      })
      await feeder.start(way.start)
    } catch (error) {
      pause()
      if (!(error instanceof DOMException && error.name === 'AbortError')) onProblem(error)
    }
  }

  /** From its beginning again; at once where its pictures are still there. */
  function repeat({ from }: Stretch) {
    if (feeder?.jump(from)) return
    halt()
    frame.value = from
    play()
  }

  function pause() {
    if (!playing.value) return
    playing.value = starting.value = false
    video.value?.pause()
    const used = feeder
    feeder = null
    // The last moving picture stays until the still of the same frame is there.
    draw().finally(() => {
      used?.stop()
      if (!playing.value) moving.value = false
    })
  }

  function halt() {
    playing.value = starting.value = false
    feeder?.stop()
    feeder = null
    moving.value = false
  }

  /** Play forwards (1) or backwards (-1); pressed again, faster. */
  function shuttle(way: 1 | -1) {
    const pace = nextPace(speed.value, playing.value, way)
    if (playing.value && pace === speed.value) return
    if (playing.value) halt()
    play(pace)
  }

  function seek(to: number) {
    const target = Math.min(Math.max(Math.round(to), 0), end.value)
    if (playing.value) halt()
    if (target === frame.value && target === drawn.value) return
    frame.value = target
    draw()
  }

  /**
   * Show the picture as it would be after a step that is not done yet, at the playhead or another
   * frame. Nulls end that. While it plays the step is seen once it is done.
   */
  function tryOut(step: Step | null, at: number | null = null) {
    if (playing.value && at !== null) pause()
    trial.value = { step, frame: at }
    draw()
  }

  /** Ask for scopes and mattes with every still from now on. */
  function ask(what: Pick<StillAsk, 'matte' | 'onion' | 'scopes'>) {
    asked.value = what
    if (!what.scopes) measured.value = null
    draw()
  }

  /** Forget a tried step; the next picture is asked for by whoever kept or dropped it. */
  function endTrial() {
    trial.value = { step: null, frame: null }
  }

  /** What plays was changed: it goes on as it is now, or begins anew where it is another film. */
  function goOn(now: Source, before: Source | null | undefined) {
    const { rate } = now
    const film = (one: Source) => `${one.base.split('/revisions/')[0]}?${lookAt(one)}`
    const same = before && film(now) === film(before) && rate.num === before.rate.num
    if (feeder && same && rate.den === before.rate.den && speed.value === 1) {
      feeder.exchange(now).catch(onProblem)
      return
    }
    halt()
    play(speed.value)
  }

  watch(
    source,
    (now, before) => {
      if (!now) return
      const same = now.base === before?.base && lookAt(now) === lookAt(before)
      if (!same) {
        if (playing.value) return goOn(now, before)
        endTrial()
      }
      frame.value = Math.min(frame.value, end.value)
      draw()
    },
    { immediate: true },
  )

  // What could not be drawn while nobody answered is drawn as soon as somebody may.
  useEventListener('online', draw)

  onScopeDispose(() => feeder?.stop())

  return {
    frame: readonly(frame),
    playing: readonly(playing),
    starting: readonly(starting),
    speed: readonly(speed),
    size: sizing.size,
    moving: readonly(moving),
    drawn: readonly(drawn),
    shown,
    last,
    end,
    measured,
    heard,
    draw,
    ask,
    sharpen,
    play,
    pause,
    shuttle,
    seek,
    tryOut,
    endTrial,
    toggle: () => (playing.value ? pause() : play()),
    step: (by: number) => {
      if (playing.value) pause()
      seek(frame.value + by)
    },
  }
}

export type Player = ReturnType<typeof usePlayer>
