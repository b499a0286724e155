import { computed } from 'vue'
import type { Take } from '@/api/types'
import { useHand } from '@/stores/hand'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { partsOf } from '@/takes/placing'
import { t } from '@/texts'

/** The clip of several cameras in hand, and takes becoming angles of it. */
export function useFilling() {
  const hand = useHand()
  const project = useProject()
  const notes = useNotes()

  const filled = computed(() => {
    const clip = hand.one?.clip
    return clip?.kind === 'multicam' ? clip : null
  })
  /** An angle is something that runs. */
  const fits = (takes: readonly Take[]) =>
    takes.length > 0 && takes.every((take) => take.facts?.kind !== 'still')

  /** Returns whether they were added. */
  async function fill(given: Take[]): Promise<boolean> {
    const [clip, takes] = [filled.value, partsOf(given)]
    if (!clip || !(await project.edit({ kind: 'add_angles', clip: clip.id ?? '', takes })))
      return false
    const told = { count: takes.length, name: clip.name ?? '' }
    notes.told(t('gather.severalBar.anglesWereAdded', told, takes.length))
    return true
  }
  return { filled, fits, fill }
}
