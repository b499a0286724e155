import type { PicturedClip } from '@/api/types'
import { keyedProps, omitted } from '@/motion/props'

/** Parts that belong to one clip alone: their paths name ids that no other clip has. */
const OWN = /^(effects|masks|warp|grade|fill|stroke|key)\b/

/** What moves a clip, as the Kit keeps it: it can be given to any other. */
export function keptMotion(clip: PicturedClip): Record<string, unknown> {
  const moves = clip.moves
  return {
    length: clip.length,
    properties: keyedProps(omitted(clip, 'moves'))
      .filter(({ path }) => !OWN.test(path))
      .map(({ path, prop }) => ({ path, keys: prop.keys })),
    comes: moves?.comes ?? null,
    goes: moves?.goes ?? null,
    meanwhile: moves?.meanwhile ?? [],
    along: moves?.along ?? false,
    shutter: typeof moves?.shutter === 'number' ? moves.shutter : 0,
  }
}
