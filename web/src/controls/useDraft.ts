import { shallowRef, watch, type ShallowRef } from 'vue'
import { useProject } from '@/stores/project'

/**
 * What a control shows while it is handled and until its step is acknowledged, null for what is
 * kept. It goes when what is kept changes, and when a step is refused: then the control shows again
 * what is.
 */
export function useDraft<T>(kept: () => unknown): ShallowRef<T | null> {
  const project = useProject()
  const draft = shallowRef<T | null>(null)
  watch([kept, () => project.refusals], () => (draft.value = null))
  return draft
}
