import { computed } from 'vue'
import type { Layer } from '@/inhand/useLayer'
import type { MaskOwner } from '@/inhand/maskOwner'
import { useLayering } from '@/stores/layering'

/** The masks of the layer in hand. */
export function useLayerMasks(layer: Layer): MaskOwner {
  const layering = useLayering()
  const masks = computed(() => layer.clip.value?.masks ?? [])
  const id = (index: number) => masks.value[index]?.id ?? ''
  return {
    masks,
    taken: computed(() => Math.min(layering.mask, Math.max(0, masks.value.length - 1))),
    take: (index) => (layering.mask = index),
    local: layer.local,
    add: (mask) => layer.addParts('masks', [mask]),
    remove: (index) => layer.removePart('masks', id(index)),
    step: (values, index) => layer.partStep('masks', id(index), values),
    send: layer.send,
    addStroke: (index, stroke) => layer.addItem(`masks/${id(index)}/strokes`, stroke),
    removeStroke: (index, stroke) => layer.removeItem(`masks/${id(index)}/strokes/${stroke}`),
  }
}
