import { client, need } from '@/api/client'
import type { Player } from '@/player/usePlayer'
import { useHand } from '@/stores/hand'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import type { Point } from './placing'

/** A tap on the picture takes the front layer under the finger; tapped again, the one behind. */
export function useTaps(player: Player) {
  const project = useProject()
  const hand = useHand()
  const notes = useNotes()

  async function tapAt(spot: Point) {
    try {
      const asked = client.POST('/api/projects/{id}/revisions/{revision}/under', {
        params: { path: { id: project.id, revision: project.seen }, query: project.look },
        body: { frame: player.shown.value, ...spot },
      })
      const { clips } = await need(asked)
      if (!clips.length) {
        hand.release()
        return
      }
      const at = clips.indexOf(hand.one?.clip.id ?? '')
      hand.take(clips[(at + 1) % clips.length] ?? '')
    } catch (error) {
      notes.problem(error)
    }
  }

  return { tapAt }
}
