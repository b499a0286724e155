import { expect, test } from 'vitest'
import type { PicturedClip } from '@/api/types'
import { keptMotion } from './kept'

test('a kept motion is what any other layer can be given', () => {
  const keys = { keys: [{ at: 0, value: 1 }] }
  const clip = {
    kind: 'shape',
    length: 90,
    opacity: keys,
    place: { turn: keys, lean: 0 },
    effects: [{ id: 'own', mix: keys }],
    moves: {
      comes: { kind: 'pop', length: 9 },
      meanwhile: [{ id: 'm', strength: keys }],
      along: true,
    },
  } as unknown as PicturedClip
  const kept = keptMotion(clip)
  expect((kept.properties as { path: string }[]).map(({ path }) => path)).toEqual([
    'opacity',
    'place/turn',
  ])
  expect(kept).toMatchObject({ length: 90, comes: { kind: 'pop' }, along: true, shutter: 0 })
  expect((kept.meanwhile as unknown[]).length).toBe(1)
})
