import { expect, test } from 'vitest'
import { TICKS_PER_SECOND, type TextClip } from '@/api/types'
import { captionAt, pace } from './captions'

const said = (start: number, seconds: number, text: string) =>
  ({
    kind: 'text',
    id: text,
    start: start * TICKS_PER_SECOND,
    length: seconds * TICKS_PER_SECOND,
    text,
  }) as TextClip

test('reading speed counts letters, not spaces', () => {
  expect(pace(said(0, 2, 'four folds up'))).toBe(5.5)
})

test('in a pause the next caption is meant', () => {
  const all = [said(1, 1, 'a'), said(3, 1, 'b')]
  const at = (seconds: number) => captionAt(all, seconds * TICKS_PER_SECOND)?.text
  expect([at(0), at(1.5), at(2), at(3.5), at(4)]).toEqual(['a', 'a', 'b', 'b', undefined])
})
