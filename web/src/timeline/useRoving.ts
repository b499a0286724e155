import { computed, nextTick, ref, watch, type Ref } from 'vue'
import type { Clip, Track } from '@/api/types'
import { useHand } from '@/stores/hand'
import { useProject } from '@/stores/project'
import { nearest, neighbour, type Way } from '@/timeline/neighbours'

const WAYS: Record<string, Way> = {
  ArrowLeft: 'before',
  ArrowRight: 'after',
  ArrowUp: 'above',
  ArrowDown: 'below',
  Home: 'first',
  End: 'last',
}

/** One clip of the grid can be reached by Tab; from there arrows go to the others, seen or not. */
export function useRoving(
  rows: Ref<Track[]>,
  scroller: Ref<HTMLElement | null>,
  reveal: (clip: Clip) => void,
) {
  const project = useProject()
  const hand = useHand()
  const focused = ref('')
  /** The clip that had the focus last and the place of its row: one goes on from there if it goes. */
  let held: { clip: Clip; row: number } | null = null

  const stop = computed(() => {
    const wanted = [focused.value, hand.ids[0] ?? '']
    const there = wanted.find((id) => id && project.findClip(id))
    return there ?? rows.value.find((row) => row.clips.length)?.clips[0]?.id ?? ''
  })

  function onFocus(event: FocusEvent) {
    const id = (event.target as HTMLElement).dataset.clip
    if (!id) return
    focused.value = id
    const row = rows.value.findIndex((one) => one.clips.some((clip) => clip.id === id))
    const clip = rows.value[row]?.clips.find((one) => one.id === id)
    held = clip ? { clip, row } : null
  }

  /** Let go, unless it was its clip that went. */
  function onBlur(event: FocusEvent) {
    const left = event.target as HTMLElement
    queueMicrotask(() => {
      const elsewhere = event.relatedTarget || left.isConnected
      if (elsewhere && held?.clip.id === left.dataset.clip) held = null
    })
  }

  watch(
    rows,
    (now) => {
      if (!held) return
      const [id, active] = [held.clip.id ?? '', document.activeElement]
      const going = active instanceof HTMLElement && active.dataset.clip === id
      const still = project.findClip(id)?.clip
      if (active !== document.body && (still || !going)) return
      const next = still ?? nearest(now, held.clip, held.row)
      if (next) focusOn(next)
    },
    { flush: 'post' },
  )
  // What was pasted or grouped by a key goes on being worked on by keys.
  watch(
    () => hand.one?.clip,
    (one) => {
      const inside = scroller.value?.contains(document.activeElement)
      if (one && inside && held && one.id !== focused.value) focusOn(one)
    },
    { flush: 'post' },
  )

  /** Whether the key was for the grid. */
  function go(event: KeyboardEvent): boolean {
    const from = (event.target as HTMLElement).dataset.clip
    const way = WAYS[event.key]
    if (!from || !way || event.altKey || event.ctrlKey || event.metaKey) return false
    event.preventDefault()
    event.stopPropagation()
    const to = neighbour(rows.value, from, way)
    if (to) focusOn(to)
    return true
  }

  async function focusOn(clip: Clip) {
    focused.value = clip.id ?? ''
    reveal(clip)
    await nextTick()
    const found = () =>
      scroller.value?.querySelector<HTMLElement>(`[data-clip="${CSS.escape(clip.id ?? '')}"]`)
    if (!found()) await new Promise(requestAnimationFrame)
    await nextTick()
    found()?.focus({ preventScroll: false })
  }

  return { stop, onFocus, onBlur, go, focusOn }
}
