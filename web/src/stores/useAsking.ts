import { computed, ref } from 'vue'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'

/** Questions about the open project as it is now, one at a time; what goes wrong is told. */
export function useAsking() {
  const project = useProject()
  const notes = useNotes()
  const asking = ref(0)

  /** Where addresses of what is open begin, and which group. */
  const here = () => ({
    path: { id: project.id, revision: project.revision },
    query: project.look,
  })

  /** The answer; null if there is none. */
  async function ask<T>(question: () => Promise<T>): Promise<T | null> {
    asking.value += 1
    try {
      return await question()
    } catch (error) {
      notes.problem(error)
      return null
    } finally {
      asking.value -= 1
    }
  }

  return { here, ask, busy: computed(() => asking.value > 0) }
}
