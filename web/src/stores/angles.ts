import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import type { MulticamClip } from '@/api/types'
import { angleAt } from '@/motion/angles'
import { gridOf, shapeOf, type Size } from '@/motion/wall'
import { tickOf } from '@/time'
import { useHand } from './hand'
import { useProject } from './project'

/** A switch that was tapped while the film played, at a frame of it. */
export interface Tap {
  frame: number
  angle: number
}

/** Work on a multicam clip: what of it is shown in place of the film, and what was tapped. */
export const useAngles = defineStore('angles', () => {
  const hand = useHand()
  const project = useProject()
  /** Which of its benches is open: only then is anything but the film shown. */
  const bench = ref<'' | 'switch' | 'line-up'>('')
  /** While switching: the angles, the film, or the film with the angles beside it. */
  const view = useLocalStorage<'wall' | 'film' | 'both'>('velvet-kite.angles', 'wall')
  /** Two angles that are checked beside each other. */
  const pair = ref<[number, number] | null>(null)
  /** Frames by which a tap comes later than it was meant. */
  const delay = useLocalStorage('velvet-kite.tap-delay', 0)
  const taps = ref<Tap[]>([])
  /** What lining up found, by scene. */
  const found = ref<Record<string, Schemas['Found'][]>>({})
  /** Where a person saw or heard the clap of an angle, by scene: ticks from where its file begins. */
  const claps = ref<Record<string, Record<number, number>>>({})
  /** Pixels that there are for it. */
  const place = ref<Size>({ width: 390, height: 390 })
  /** What a tap does; there is something while a bench takes it. */
  const taker = ref<((angle: number) => void) | null>(null)

  const clip = computed<MulticamClip | null>(() => {
    const one = hand.one?.clip
    return one?.kind === 'multicam' ? one : null
  })
  /** The angles that are shown in place of the film; none where it is the film. */
  const shown = computed<number[]>(() => {
    const one = clip.value
    if (!one || !bench.value) return []
    const seen = one.tracks.flatMap((track, index) => (track.kind === 'sound' ? [] : [index]))
    if (bench.value === 'line-up') {
      return (pair.value ?? []).filter((index) => seen.includes(index))
    }
    return view.value === 'film' ? [] : seen
  })
  /** The shape of what is shown: of the film, or of angles beside each other. */
  const canvas = computed(() => project.document?.canvas ?? { width: 1080, height: 1920 })
  const beside = computed(() => bench.value === 'switch' && view.value === 'both')
  const grid = computed(() => gridOf(shown.value.length, canvas.value, place.value, beside.value))
  const shape = computed(() =>
    shown.value.length ? shapeOf(grid.value, canvas.value) : canvas.value,
  )
  /** What addresses of pictures say of that. */
  const look = computed((): Record<string, string> => {
    const one = clip.value
    if (!one?.tracks.length || !bench.value) return {}
    const columns = String(grid.value.columns)
    if (bench.value === 'switch') {
      if (!shown.value.length) return {}
      return { wall: one.id ?? '', columns, ...(beside.value ? { film: 'true' } : {}) }
    }
    const [left, right] = pair.value ?? []
    return left === undefined || right === undefined
      ? {}
      : { wall: one.id ?? '', columns, left: String(left), right: String(right) }
  })

  watch(
    () => [clip.value?.id, clip.value?.tracks.length, project.id],
    () => (pair.value = null),
  )

  /** The angle that is live at a frame: what was tapped last before it, else what the clip shows. */
  function liveAt(frame: number): number {
    const tapped = taps.value.findLast((one) => one.frame <= frame)?.angle
    return tapped ?? (clip.value ? angleAt(clip.value, tickOf(frame, project.rate)) : -1)
  }

  const tap = (angle: number) => taker.value?.(angle)

  return {
    bench,
    view,
    pair,
    delay,
    taps,
    found,
    claps,
    taker,
    clip,
    shown,
    place,
    grid,
    shape,
    look,
    liveAt,
    tap,
  }
})
