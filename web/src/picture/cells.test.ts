import { expect, test } from 'vitest'
import cases from './cells.cases.json'
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
  row_shares: [],
  cell_shares: [],
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
  const corners = cellCorners({ ...cell, place: 1, slant: 10 }, canvas)
  expect(corners.filter(({ x }) => x === 10)).toHaveLength(2)
  const [a, b] = corners.filter(({ x }) => x > 10).sort((p, q) => p.y - q.y)
  expect((a?.x ?? 0) - (b?.x ?? 0)).toBeCloseTo(140 * Math.tan(Math.PI / 18), 6)
})

test('a steep slant cuts cells off at the edge of the canvas', () => {
  const three = { ...cell, rows: [3], gap: 0, margin: 0, slant: 40 }
  for (const place of [0, 1, 2]) {
    const { left, width } = cellBox({ ...three, place }, canvas)
    expect(left).toBeGreaterThanOrEqual(0)
    expect(left + width).toBeLessThanOrEqual(180 + 1e-9)
  }
})

test('corners are those that the core cuts along', () => {
  for (const { cell: told, canvas: size, corners } of cases) {
    const [width = 0, height = 0] = size
    const found = cellCorners(told, { width, height })
    expect(found).toHaveLength(corners.length)
    found.forEach(({ x, y }, index) => {
      expect(x).toBeCloseTo(corners[index]?.[0] ?? NaN, 6)
      expect(y).toBeCloseTo(corners[index]?.[1] ?? NaN, 6)
    })
  }
})
