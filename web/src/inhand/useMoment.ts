import { computed, type Ref } from 'vue'
import type { Clip } from '@/api/types'
import { moves } from '@/motion/keys'
import { useScreen } from '@/player/inject'
import { useNotes } from '@/stores/notes'
import { startOf, useProject } from '@/stores/project'
import { t } from '@/texts'
import { tickOf } from '@/time'

/** Where the playhead stands in a clip: there its keys are set. */
export function useMoment(clip: Ref<Clip | null>) {
  const project = useProject()
  const notes = useNotes()
  const { player } = useScreen()

  const at = computed(() =>
    clip.value ? tickOf(player.shown.value, project.rate) - startOf(clip.value) : 0,
  )
  /** Tick from the start of the clip, kept within it. */
  const local = computed(() => {
    const last = (clip.value?.length ?? 0) - tickOf(1, project.rate)
    return Math.min(Math.max(at.value, 0), Math.max(last, 0))
  })
  const over = computed(() => !!clip.value && at.value >= 0 && at.value < clip.value.length)

  /** Whether values by path may be set now: keys only where the clip is seen, else that is said. */
  function maySet(values: Record<string, unknown>): boolean {
    if (over.value || !Object.values(values).some(moves)) return true
    notes.told(t('inhand.useMoment.thePlayheadIsNotOn', { name: clip.value?.name }))
    return false
  }

  return { local, over, maySet }
}
