import { computed } from 'vue'
import { useScreen } from '@/player/inject'
import { useProject } from '@/stores/project'
import { useViewing } from '@/stores/viewing'
import { t } from '@/texts'
import { momentOf } from '@/time'

/** What makes an element the slider of the playhead, for those who hear it and for keys. */
export function usePlayheadSlider() {
  const project = useProject()
  const viewing = useViewing()
  const { player } = useScreen()

  function onKeydown(event: KeyboardEvent) {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
    if (!by) return
    event.preventDefault()
    event.stopPropagation()
    player.step(by * (event.shiftKey ? 10 : 1))
  }

  return computed(() => ({
    role: 'slider',
    tabindex: 0,
    'aria-label': t('timeline.usePlayheadSlider.playhead'),
    'aria-valuemin': 0,
    'aria-valuemax': player.end.value,
    'aria-valuenow': player.frame.value,
    'aria-valuetext': momentOf(player.frame.value, project.rate, viewing.clock),
    onKeydown,
  }))
}
