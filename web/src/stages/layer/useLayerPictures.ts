import { watchDebounced } from '@vueuse/core'
import { ref } from 'vue'
import { client, need } from '@/api/client'
import { useScreen } from '@/player/inject'
import { useProject } from '@/stores/project'

/** Milliseconds for which the playhead rests before the list is drawn anew. */
const REST = 120

/**
 * Small pictures of the layers where the playhead rests, by clip; asked for in one go, after the
 * picture itself. While it plays they stay as they are.
 */
export function useLayerPictures() {
  const project = useProject()
  const { player } = useScreen()
  const pictures = ref<Record<string, string>>({})
  let newest = 0

  watchDebounced(
    () => [player.drawn.value, player.playing.value, project.seen, project.within, project.id],
    async () => {
      if (player.playing.value || !project.id || !project.frames) return
      const mine = ++newest
      const path = { id: project.id, revision: project.seen }
      const query = { ...project.look, frame: player.shown.value }
      try {
        const asked = client.GET('/api/projects/{id}/revisions/{revision}/layers', {
          params: { path, query },
        })
        const found = await need(asked)
        if (mine === newest) pictures.value = found.pictures
      } catch {
        // The list says by names what there is; the picture itself tells what went wrong.
      }
    },
    { debounce: REST, immediate: true },
  )
  return pictures
}
