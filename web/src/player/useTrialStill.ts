import { onScopeDispose, ref, watch } from 'vue'
import type { Step } from '@/api/types'
import { fetchStill, type Source } from './source'

let lanes = 0

/** A small picture of a frame as it would be after a step; of several asked for the newest is shown. */
export function useTrialStill(
  source: () => Source | null,
  frame: () => number,
  step: () => Step | null,
  onProblem: (error: unknown) => void,
  longSide = 240,
) {
  const url = ref('')
  const lane = `trial-${Date.now()}-${++lanes}`
  const closing = new AbortController()
  let turn = 0
  let asking = false
  let wanted = false

  async function draw() {
    const from = source()
    if (!from || asking) {
      wanted = asking
      return
    }
    asking = true
    wanted = false
    const ask = { longSide, lane, turn: ++turn, edit: step(), signal: closing.signal }
    try {
      const { blob } = await fetchStill(from, Math.max(0, frame()), ask)
      if (blob.size) {
        URL.revokeObjectURL(url.value)
        url.value = URL.createObjectURL(blob)
      }
    } catch (error) {
      if (!closing.signal.aborted) onProblem(error)
    } finally {
      asking = false
      if (wanted) draw()
    }
  }

  watch([() => source()?.base, frame, () => JSON.stringify(step())], draw, { immediate: true })
  onScopeDispose(() => {
    closing.abort()
    URL.revokeObjectURL(url.value)
  })
  return url
}
