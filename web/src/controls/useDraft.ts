import { shallowRef, watch, type ShallowRef } from 'vue'
import { useProject } from '@/stores/project'

/**
 * What a control shows while it is handled and until its steps are acknowledged, null for what is
 * kept. It goes when what is kept has changed and no step is on its way any more: of two quick ones
 * the first answer does not show what was before the second. It goes when a step is refused: then
 * the control shows again what is.
 */
export function useDraft<T>(kept: () => unknown): ShallowRef<T | null> {
  const project = useProject()
  const draft = shallowRef<T | null>(null)
  let changed = false
  const clear = () => {
    changed = false
    draft.value = null
  }
  const settle = () => changed && project.waiting === 0 && clear()
  watch(kept, () => {
    changed = true
    settle()
  })
  watch(() => project.waiting, settle)
  watch(() => project.refusals, clear)
  return draft
}
