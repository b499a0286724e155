import { computed } from 'vue'
import type { Clip, Track } from '@/api/types'
import { useScreen } from '@/player/inject'
import { useHand } from '@/stores/hand'
import { endOf, startOf, useProject } from '@/stores/project'
import { frameOf } from '@/time'

export interface Join {
  /** The first frame after it. */
  frame: number
  before: Clip
  after: Clip
}

/** The joins of a track: where one clip ends and the next begins. */
export function joinsOf(track: Track | undefined, rate: { num: number; den: number }): Join[] {
  const clips = track?.clips ?? []
  return clips.flatMap((clip, index) => {
    const before = clips[index - 1]
    if (!before || endOf(before) !== startOf(clip)) return []
    return [{ frame: frameOf(startOf(clip), rate), before, after: clip }]
  })
}

/** The joins of the track of what is in hand (else of the main track), and the nearest of them. */
export function useJoins() {
  const project = useProject()
  const hand = useHand()
  const { player } = useScreen()

  const joins = computed(() => {
    const main = project.tracks.find((track) => track.kind === 'main')
    const mine = joinsOf(hand.one?.track, project.rate)
    return mine.length ? mine : joinsOf(main, project.rate)
  })
  const nearest = computed(() => {
    const at = player.frame.value
    return joins.value.reduce<Join | null>(
      (best, join) =>
        !best || Math.abs(join.frame - at) < Math.abs(best.frame - at) ? join : best,
      null,
    )
  })
  const place = computed(() => (nearest.value ? joins.value.indexOf(nearest.value) + 1 : 0))
  const previous = computed(() => joins.value.findLast((join) => join.frame < player.frame.value))
  const next = computed(() => joins.value.find((join) => join.frame > player.frame.value))

  return { joins, nearest, place, previous, next }
}
