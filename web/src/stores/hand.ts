import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import type { Clip, Step, Track } from '@/api/types'
import { useProject } from '@/stores/project'

export interface InHand {
  clip: Clip
  track: Track
}

/** What is in hand: the clips that the verbs act on. */
export const useHand = defineStore('hand', () => {
  const project = useProject()
  const ids = ref<string[]>([])
  /** Whether a tap takes a clip in hand besides those that are. */
  const several = ref(false)
  /** Whether dragging a clip slips its content instead of moving it. */
  const slips = ref(false)
  /** While a clip is slipped by drag: how far, in ticks. */
  const slipBy = ref(0)

  const found = computed(() =>
    ids.value.flatMap((id) => {
      const one = project.findClip(id)
      return one ? [one] : []
    }),
  )
  const one = computed(() => (found.value.length === 1 ? (found.value[0] ?? null) : null))

  function take(id: string, more = false) {
    if (!more && !several.value) ids.value = [id]
    else if (ids.value.includes(id)) ids.value = ids.value.filter((other) => other !== id)
    else ids.value = [...ids.value, id]
  }

  function takeAll(all: string[]) {
    ids.value = [...new Set(all)]
  }

  function release() {
    ids.value = []
    several.value = slips.value = false
  }

  /**
   * Do a step that makes clips: they come in hand, those among them that are `meant`, unless others
   * were taken meanwhile. Returns whether it was done.
   */
  async function bring(step: Step, meant: (made: InHand[]) => InHand[] = (made) => made) {
    const held = ids.value
    const { good, made } = await project.make(step)
    const found = meant(made.flatMap((id) => project.findClip(id) ?? []))
    const same = ids.value.every((id) => held.includes(id))
    if (found.length && same) takeAll(found.map(({ clip }) => clip.id ?? ''))
    return good
  }

  watch(
    () => [project.document, project.within],
    () => {
      const there = ids.value.filter((id) => project.findClip(id))
      if (there.length !== ids.value.length) ids.value = there
      // What was in hand is gone: the next tap begins anew.
      if (!there.length) several.value = slips.value = false
    },
  )

  return { ids, found, one, several, slips, slipBy, take, takeAll, bring, release }
})
