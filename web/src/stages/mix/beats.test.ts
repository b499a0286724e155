import { describe, expect, it } from 'vitest'
import { chosenBeats } from './beats'

const found = { at: [10, 20, 30, 40, 50, 60], first: 3, tempo: 120, onsets: [7, 10] }

describe('beats', () => {
  it('are as they were found, with bars that begin later or earlier', () => {
    const { onsets, ...beats } = found
    expect(chosenBeats(found, 'as_found', 0)).toEqual(beats)
    expect(chosenBeats(found, 'onsets', 2).at).toEqual(onsets)
    expect(chosenBeats(found, 'as_found', 2).first).toBe(1)
    expect(chosenBeats(found, 'as_found', -4).first).toBe(3)
  })
  it('are halved so that bars keep their beginnings', () => {
    expect(chosenBeats(found, 'half', 0)).toEqual({ at: [20, 40, 60], first: 1, tempo: 60 })
  })
  it('are doubled by those between', () => {
    expect(chosenBeats({ at: [0, 10, 20], first: 1, tempo: 90, onsets: [] }, 'double', 0)).toEqual({
      at: [0, 5, 10, 15, 20],
      first: 2,
      tempo: 180,
    })
  })
})
