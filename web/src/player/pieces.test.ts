import { expect, test } from 'vitest'
import { gridOf, nextPiece, soundGridOf } from './pieces'

test('pieces cover the film without gap or overlap and end with it', () => {
  for (const start of [0, 7, 14, 44]) {
    let at = start
    while (at < 100) {
      const piece = nextPiece(at, 100, 15)
      expect(piece.first).toBe(at)
      expect(piece.last).toBeGreaterThan(at)
      expect(piece.last - piece.first).toBeLessThan(20)
      at = piece.last
    }
    expect(at).toBe(100)
  }
})

test('after the first piece all lie on the grid', () => {
  expect(nextPiece(7, 100, 15)).toEqual({ first: 7, last: 15 })
  expect(nextPiece(14, 100, 15)).toEqual({ first: 14, last: 30 })
  expect(nextPiece(30, 100, 15)).toEqual({ first: 30, last: 45 })
})

test('a piece is about half a second', () => {
  expect(gridOf(30)).toBe(15)
  expect(gridOf(29.97)).toBe(15)
  expect(gridOf(60)).toBe(30)
})

test('one of sound a third of that', () => {
  expect(soundGridOf(30)).toBe(5)
  expect(soundGridOf(24)).toBe(4)
  expect(soundGridOf(1)).toBe(1)
})
