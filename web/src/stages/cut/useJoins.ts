import { computed } from 'vue'
import { useScreen } from '@/player/inject'
import { useHand } from '@/stores/hand'
import { useProject } from '@/stores/project'
import { frameOf, tickOf } from '@/time'
import { joinsNear, nearestJoin } from '@/inhand/joins'

/** The joins of the track of what is in hand (else of the main track), and the nearest of them. */
export function useJoins() {
  const project = useProject()
  const hand = useHand()
  const { player } = useScreen()

  const at = computed(() => tickOf(player.frame.value, project.rate))
  const joins = computed(() =>
    joinsNear(project.tracks, hand.one?.track).map((join) => ({
      ...join,
      /** The first frame after it. */
      frame: frameOf(join.at, project.rate),
    })),
  )
  const nearest = computed(() => {
    const found = nearestJoin(joins.value, at.value)
    return joins.value.find((join) => join.after === found?.after) ?? null
  })
  const place = computed(() => (nearest.value ? joins.value.indexOf(nearest.value) + 1 : 0))
  const previous = computed(() => joins.value.findLast((join) => join.frame < player.frame.value))
  const next = computed(() => joins.value.find((join) => join.frame > player.frame.value))

  return { joins, nearest, place, previous, next }
}
