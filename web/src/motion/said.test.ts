import { expect, test } from 'vitest'
import type { TextClip } from '@/api/types'
import { saidOtherwise } from './said'

const clip = { kind: 'text', length: 1, said: { keys: [{ at: 0, value: 1 }] } } as TextClip

test('times of words are kept while there are as many', () => {
  expect(saidOtherwise(clip, 'four folds', 'five  folds\n')).toEqual({})
  expect(saidOtherwise(clip, 'four folds', 'four folds up')).toEqual({ said: null })
  expect(saidOtherwise({ ...clip, said: null }, 'four', 'four folds')).toEqual({})
})
