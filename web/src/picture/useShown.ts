import { computed } from 'vue'
import { faceMedia, type PicturedClip } from '@/api/types'
import type { Player } from '@/player/usePlayer'
import { useLayering } from '@/stores/layering'
import { useLibrary } from '@/stores/library'
import { endOf, startOf, useProject } from '@/stores/project'
import { tickOf } from '@/time'
import { cellBox } from './cells'
import {
  cornersOf,
  mapped,
  pictureSize,
  placedOf,
  STILL,
  type Map6,
  type Point,
  type Size,
} from './placing'

/** Where layers are shown on the canvas at the playhead. */
export function useShown(player: Player) {
  const project = useProject()
  const library = useLibrary()
  const layering = useLayering()

  const canvas = computed(() => project.document?.canvas ?? { width: 1080, height: 1920 })
  const at = computed(() => tickOf(player.shown.value, project.rate))
  const isSeen = (one: PicturedClip) => startOf(one) <= at.value && at.value < endOf(one)

  function sizeOf(one: PicturedClip): Size | null {
    const extent = layering.extents[one.id ?? '']
    const own = one.cell ? cellBox(one.cell, canvas.value) : canvas.value
    return pictureSize(one, library.byMedia.get(faceMedia(one)), canvas.value, own, extent)
  }

  /** From where its own place puts it to where it is shown: what it follows, how it comes. */
  const mapOf = (one: PicturedClip | null): Map6 => layering.moved[one?.id ?? ''] ?? STILL

  /** The corners of a layer that is in no cell. */
  function cornersAt(one: PicturedClip): Point[] {
    const size = sizeOf(one)
    const placed = placedOf(one, at.value - startOf(one))
    const map = mapOf(one)
    return size ? cornersOf(placed, size, canvas.value).map((spot) => mapped(map, spot)) : []
  }

  return { canvas, at, isSeen, sizeOf, mapOf, cornersAt }
}
