import { isPictured, type Step } from '@/api/types'
import { useProperties } from '@/inhand/useProperties'
import { useScreen } from '@/player/inject'

export type PartList = 'masks' | 'effects' | 'strokes'

/** The layer in hand, its properties by path and its lists of parts, at the playhead. */
export function useLayer() {
  const properties = useProperties(isPictured)
  const { ids, send, sendAt } = properties
  const { player } = useScreen()

  function partStep(list: PartList, part: string, values: Record<string, unknown>): Step {
    return { kind: 'set_part', clips: ids.value, list, part, values }
  }

  const setPart = (list: PartList, part: string, values: Record<string, unknown>) =>
    sendAt(values, partStep(list, part, values))
  const tryPart = (list: PartList, part: string, values: Record<string, unknown>) =>
    player.tryOut(partStep(list, part, values))
  const addParts = (list: PartList, parts: object[], name = '', instead = false) =>
    send({ kind: 'add_parts', clips: ids.value, list, parts: parts as never, name, instead })
  const removePart = (list: PartList, part: string) =>
    send({ kind: 'remove_part', clips: ids.value, list, part })
  const orderPart = (list: PartList, part: string, to: number) =>
    send({ kind: 'order_part', clips: ids.value, list, part, to })

  /** One more item in a list of the layer, by its path: a stop, a stroke. */
  const addItem = (list: string, item: object) =>
    send({ kind: 'add_item', clips: ids.value, list, item })
  const removeItem = (item: string) => send({ kind: 'remove_item', clips: ids.value, item })

  return {
    ...properties,
    partStep,
    setPart,
    tryPart,
    addParts,
    removePart,
    orderPart,
    addItem,
    removeItem,
  }
}

export type Layer = ReturnType<typeof useLayer>
