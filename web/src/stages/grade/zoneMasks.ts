import { computed } from 'vue'
import type { MaskOwner } from '@/inhand/maskOwner'
import { useGrading } from '@/stores/grading'
import type { useGrade } from './useGrade'

/** The masks of the zone that is worked on. */
export function useZoneMasks(grade: ReturnType<typeof useGrade>): MaskOwner {
  const grading = useGrading()
  const masks = computed(() => grade.zone.value?.masks ?? [])
  const list = () => `grade/zones/${grade.zone.value?.id}/masks`
  const clips = () => grade.ids.value
  const addTo = (list: string, item: object) =>
    grade.send({ kind: 'add_item', clips: clips(), list, item })
  const removeFrom = (list: string, at: number) =>
    grade.send({ kind: 'remove_item', clips: clips(), item: `${list}/${at}` })
  return {
    masks,
    taken: computed(() => Math.min(grading.mask, Math.max(0, masks.value.length - 1))),
    take: (index) => (grading.mask = index),
    local: grade.local,
    add: (mask) => addTo(list(), mask),
    remove: (index) => removeFrom(list(), index),
    step: (values, index) => ({
      kind: 'set_grade',
      clips: clips(),
      values: Object.fromEntries(
        Object.entries(values).map(([name, value]) => [`masks/${index}/${name}`, value]),
      ),
      zone: grading.zone,
    }),
    send: grade.send,
    addStroke: (index, stroke) => addTo(`${list()}/${index}/strokes`, stroke),
    removeStroke: (index, stroke) => removeFrom(`${list()}/${index}/strokes`, stroke),
  }
}
