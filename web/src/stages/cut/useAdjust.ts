import type { Step } from '@/api/types'
import { useScreen } from '@/player/inject'
import { useProject } from '@/stores/project'

/** Setting properties of one clip; while a slider moves the picture shows what would be. */
export function useAdjust(clip: () => string) {
  const project = useProject()
  const { player } = useScreen()

  const step = (values: Record<string, unknown>): Step => ({
    kind: 'adjust',
    clips: [clip()],
    values,
  })

  function set(values: Record<string, unknown>) {
    player.endTrial()
    return project.edit(step(values))
  }

  function trying(values: Record<string, unknown>) {
    player.tryOut(step(values))
  }

  return { set, trying }
}
