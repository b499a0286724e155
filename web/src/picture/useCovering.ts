import { computed, ref } from 'vue'
import type { VideoClip } from '@/api/types'
import { coverOver } from '@/motion/covers'
import type { Quad } from '@/motion/quads'
import { useScreen } from '@/player/inject'
import { useProject } from '@/stores/project'
import { tickOf } from '@/time'
import { frameOfMask } from './masks'
import { usePlacing } from './usePlacing'

export type CoverHow = 'mosaic' | 'soft_blur' | 'plain'
export interface CoverPicture {
  media: string
  aspect: number
}
export type CoverShape = 'ellipse' | 'rectangle'

export interface CoverOptions {
  how?: CoverHow
  shape?: CoverShape
  margin?: number
  picture?: CoverPicture | null
  /** To how many times its size it grows, for which the cover has to be strong enough. */
  grows?: number
}

/** Covers over what is followed in the video in hand. */
export function useCovering(clip: () => VideoClip) {
  const project = useProject()
  const { player } = useScreen()
  const placing = usePlacing(player, ref(1))
  const ready = computed(() => Boolean(placing.size.value && placing.corners.value))

  /** Cover a thing that is at a place of the picture at the playhead, wherever it goes. */
  async function coverAt(
    tracker: string,
    quad: Quad,
    { how = 'mosaic', shape = 'ellipse', margin, picture = null, grows = 1 }: CoverOptions = {},
  ): Promise<boolean> {
    const [size, corners] = [placing.size.value, placing.corners.value]
    if (!size || !corners) return false
    const frame = frameOfMask(corners, size.width / size.height, 1)
    const spots = quad.map(([x, y]) => frame.to({ x, y }))
    return project.edit({
      kind: 'cover_tracked',
      clip: clip().id ?? '',
      tracker,
      how,
      shape,
      picture,
      grows,
      at: tickOf(player.shown.value, project.rate),
      ...coverOver(spots, placing.canvas.value, shape, margin),
    })
  }

  return { ready, coverAt }
}
