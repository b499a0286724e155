import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { useProject } from '@/stores/project'

export type Mode = 'push' | 'over' | 'above'

/** What is in hand: the clips that the verbs act on. */
export const useHand = defineStore('hand', () => {
  const project = useProject()
  const ids = ref<string[]>([])

  const found = computed(() =>
    ids.value.flatMap((id) => {
      const one = project.findClip(id)
      return one ? [one] : []
    }),
  )
  const one = computed(() => (found.value.length === 1 ? (found.value[0] ?? null) : null))

  function take(id: string, more = false) {
    if (!more) ids.value = [id]
    else if (ids.value.includes(id)) ids.value = ids.value.filter((other) => other !== id)
    else ids.value = [...ids.value, id]
  }

  function release() {
    ids.value = []
  }

  watch(
    () => project.document,
    () => {
      const there = ids.value.filter((id) => project.findClip(id))
      if (there.length !== ids.value.length) ids.value = there
    },
  )

  return { ids, found, one, take, release }
})
