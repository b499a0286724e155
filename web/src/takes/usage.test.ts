import { describe, expect, it } from 'vitest'
import type { Track } from '@/api/types'
import { usage, usedFiles } from './usage'

const clip = (kind: string, name: string, more: object) => ({ kind, name, length: 9, ...more })
const tracks = [
  {
    kind: 'main',
    clips: [
      clip('video', 'wind', { media: 'a' }),
      clip('video', 'wind again', { media: 'a' }),
      clip('group', 'row', {
        tracks: [{ kind: 'sound', clips: [clip('sound', 'hum', { media: 'b' })] }],
      }),
      clip('sequence', 'steps', { pictures: ['c', 'd', 'c'] }),
      clip('solid', 'ground', {}),
    ],
  },
] as unknown as Track[]

describe('what a timeline uses', () => {
  it('is counted, in groups and rows of pictures too', () => {
    expect(Object.fromEntries(usage(tracks))).toEqual({ a: 2, b: 1, c: 2, d: 1 })
  })

  it('is named by the first clip of each file', () => {
    expect(usedFiles(tracks)).toEqual([
      { media: 'a', name: 'wind', sounds: false },
      { media: 'b', name: 'hum', sounds: true },
      { media: 'c', name: 'steps', sounds: false },
      { media: 'd', name: 'steps', sounds: false },
    ])
  })
})
