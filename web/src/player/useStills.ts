import { useDebounceFn } from '@vueuse/core'
import { onScopeDispose } from 'vue'
import { PAUSE, useHaste } from './haste'
import type { Measured } from './measured'
import { fetchStill, type Source, type StillAsk } from './source'

const LONG_SIDE = 960
const MOST_SIDE = 1920
/** Questions under way at once: one that is drawn, one that waits for it. */
const MOST = 2
let lanes = 0

export interface Wanted extends Pick<StillAsk, 'edit' | 'matte' | 'onion' | 'scopes'> {
  from: Source
  frame: number
}

export interface Still {
  picture: ImageBitmap
  frame: number
  measured: Measured | null
}

/**
 * Stills of what is wanted at the time: of several asked for the newest is shown. While one question
 * follows another they are as large as comes fast enough; the last one is drawn whole.
 */
export function useStills(
  wanted: () => Wanted | null,
  show: (still: Still) => void,
  onProblem: (error: unknown) => void,
) {
  const lane = `still-${Date.now()}-${++lanes}`
  const haste = useHaste()
  const closing = new AbortController()
  let whole = LONG_SIDE
  let share = 1
  let turn = 0
  let newest = 0
  let asking = 0
  let waiting = false

  async function fetchOne({ from, frame, ...ask }: Wanted) {
    const [mine, part, began] = [++turn, share, performance.now()]
    const longSide = Math.round((whole * part) / 2) * 2
    const more = { ...ask, longSide, lane, turn: mine, signal: closing.signal }
    const { blob, measured } = await fetchStill(from, Math.min(frame, from.frames - 1), more)
    if (!blob.size) return
    haste.took(performance.now() - began, part)
    const picture = await createImageBitmap(blob)
    if (mine < newest) return picture.close()
    newest = mine
    show({ picture, frame, measured })
  }

  async function next() {
    waiting = asking >= MOST
    const what = waiting ? null : wanted()
    if (!what) return
    asking += 1
    try {
      await fetchOne(what)
    } catch (error) {
      if (!closing.signal.aborted) onProblem(error)
    } finally {
      asking -= 1
      if (waiting) next()
    }
  }

  const drawWhole = useDebounceFn(() => {
    share = 1
    next()
  }, PAUSE)

  function draw(): Promise<void> {
    share = haste.hastens() ? haste.share() : 1
    if (share < 1) drawWhole()
    return next()
  }

  /** Ask for larger stills, since they are looked at more closely. */
  function sharpen(zoom: number) {
    const side = zoom > 1.5 ? MOST_SIDE : LONG_SIDE
    if (side === whole) return
    whole = side
    draw()
  }

  onScopeDispose(() => closing.abort())
  return { draw, sharpen }
}
