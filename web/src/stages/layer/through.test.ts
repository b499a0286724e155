import { describe, expect, it } from 'vitest'
import { whyAgain } from './through'

const views = [{ at: 5, strokes: [], around: [], persons: [[0, 0] as [number, number]] }]
const through = { views, edge: 0.02, first: 0, last: 100 }

describe('whyAgain', () => {
  it('has no reason where nothing was found, or all is as it was', () => {
    expect(whyAgain(null, 0, 10)).toBe('')
    expect(whyAgain({ views, edge: 0.02, through: null }, 0, 10)).toBe('')
    expect(whyAgain({ views, edge: 0.02, through }, 0, 100)).toBe('')
  })

  it('is that it was marked anew, or its edge made wider', () => {
    const more = [...views, { at: 9, strokes: [], around: [], persons: [] }]
    expect(whyAgain({ views: more, edge: 0.02, through }, 0, 100)).toBe('anew')
    expect(whyAgain({ views, edge: 0.05, through }, 0, 100)).toBe('anew')
  })

  it('is that the clip shows more than was looked at', () => {
    expect(whyAgain({ views, edge: 0.02, through }, 0, 101)).toBe('short')
    expect(whyAgain({ views, edge: 0.02, through }, -1, 100)).toBe('short')
  })
})
