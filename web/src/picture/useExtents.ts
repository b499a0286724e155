import { watch } from 'vue'
import { client, need } from '@/api/client'
import { isDrawn, isPictured, type Clip } from '@/api/types'
import { useScreen } from '@/player/inject'
import { useLayering } from '@/stores/layering'
import { useProject } from '@/stores/project'
import type { Map6 } from './placing'

/** Keeps known what only the server can tell: sizes of texts and shapes, where moved layers are. */
export function useExtents() {
  const project = useProject()
  const layering = useLayering()
  const { player } = useScreen()

  watch(
    () => [project.id, project.seen, project.within, player.shown.value, player.playing.value],
    async () => {
      const some = project.tracks.some((track) => track.clips.some((clip) => asks(clip)))
      if (!some || player.playing.value || !project.id) return
      const path = { id: project.id, revision: project.seen }
      const query = { ...project.look, frame: player.shown.value }
      try {
        const asked = client.GET('/api/projects/{id}/revisions/{revision}/extents', {
          params: { path, query },
        })
        const { extents, bodies, moved, led } = await need(asked)
        if (path.revision !== project.seen) return
        layering.bodies = { ...layering.bodies, ...(bodies as typeof layering.bodies) }
        layering.extents = { ...layering.extents, ...(extents as Record<string, [number, number]>) }
        layering.moved = moved as unknown as Record<string, Map6>
        layering.led = led as unknown as Record<string, Map6>
      } catch {
        // Without sizes there are no handles; the picture itself tells what went wrong.
      }
    },
    { immediate: true },
  )
}

function asks(clip: Clip): boolean {
  if (isDrawn(clip)) return true
  const moves = isPictured(clip) ? clip.moves : null
  if (!moves) return false
  const some = moves.comes ?? moves.goes ?? moves.follow ?? moves.meanwhile?.length
  return Boolean(some) || Boolean(moves.along)
}
