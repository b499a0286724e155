import { expect, test } from 'vitest'
import { cellBox, cellCorners } from './cells'

const canvas = { width: 180, height: 320 }
const cell = {
  screen: 's',
  rows: [1, 2],
  place: 2,
  gap: 20,
  margin: 10,
  radius: 0,
  slant: 0,
  upright: false,
}

test('cells leave the gap and the margin free', () => {
  expect(cellBox(cell, canvas)).toEqual({ left: 100, top: 170, width: 70, height: 140 })
  expect(cellBox({ ...cell, place: 0 }, canvas)).toEqual({
    left: 10,
    top: 10,
    width: 160,
    height: 140,
  })
})

test('upright layouts stand where lying ones lie', () => {
  expect(cellBox({ ...cell, upright: true, place: 0 }, canvas)).toEqual({
    left: 10,
    top: 10,
    width: 70,
    height: 300,
  })
})

test('a slant leans only the line between two cells', () => {
  const [a, b, c, d] = cellCorners({ ...cell, place: 1, slant: 10 }, canvas)
  expect([a?.x, d?.x]).toEqual([10, 10])
  expect((b?.x ?? 0) - (c?.x ?? 0)).toBeCloseTo(140 * Math.tan(Math.PI / 18), 6)
})
