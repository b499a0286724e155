import { expect, test } from 'vitest'
import { found } from './effects'

const kinds = [
  { kind: 'zoom_blur', title: 'Zoom blur', help: 'smeared away from a point', controls: [] },
  { kind: 'shadow', title: 'Shadow', help: 'falls behind, soft as a blur', controls: [] },
  { kind: 'box_blur', title: 'Box blur', help: 'the mean of a square', controls: [] },
]

test('finds by any words of title and help, titles that begin so first', () => {
  expect(found(kinds, 'blur').map((one) => one.kind)).toEqual(['box_blur', 'shadow', 'zoom_blur'])
  expect(found(kinds, 'zoom').map((one) => one.kind)).toEqual(['zoom_blur'])
  expect(found(kinds, 'sh').map((one) => one.kind)).toEqual(['shadow'])
  expect(found(kinds, 'blur point').map((one) => one.kind)).toEqual(['zoom_blur'])
  expect(found(kinds, '  ')).toHaveLength(3)
  expect(found(kinds, 'nothing')).toEqual([])
})
