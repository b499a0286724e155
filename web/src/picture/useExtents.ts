import { watch } from 'vue'
import { client, need } from '@/api/client'
import { isDrawn } from '@/api/types'
import { useScreen } from '@/player/inject'
import { useLayering } from '@/stores/layering'
import { useProject } from '@/stores/project'

/** Keeps the sizes of texts and shapes known, which only the server can tell. */
export function useExtents() {
  const project = useProject()
  const layering = useLayering()
  const { player } = useScreen()

  watch(
    () => [project.id, project.seen, project.within, player.frame.value, player.playing.value],
    async () => {
      const drawn = project.tracks.some((track) => track.clips.some(isDrawn))
      if (!drawn || player.playing.value || !project.id) return
      const path = { id: project.id, revision: project.seen }
      const query = { ...project.look, frame: player.frame.value }
      try {
        const asked = client.GET('/api/projects/{id}/revisions/{revision}/extents', {
          params: { path, query },
        })
        const found = (await need(asked)).extents as unknown as Record<string, [number, number]>
        if (path.revision === project.seen) layering.extents = { ...layering.extents, ...found }
      } catch {
        // Without sizes there are no handles; the picture itself tells what went wrong.
      }
    },
    { immediate: true },
  )
}
