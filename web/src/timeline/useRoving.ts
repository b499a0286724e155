import { computed, nextTick, ref, type Ref } from 'vue'
import type { Clip, Track } from '@/api/types'
import { useHand } from '@/stores/hand'
import { useProject } from '@/stores/project'
import { neighbour, type Way } from '@/timeline/neighbours'

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

  const stop = computed(() => {
    const wanted = [focused.value, hand.ids[0] ?? '']
    const there = wanted.find((id) => id && project.findClip(id))
    return there ?? rows.value.find((row) => row.clips.length)?.clips[0]?.id ?? ''
  })

  function onFocus(event: FocusEvent) {
    const id = (event.target as HTMLElement).dataset.clip
    if (id) focused.value = id
  }

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

  return { stop, onFocus, go, focusOn }
}
