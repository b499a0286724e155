import { expect, test } from 'vitest'
import { aroundOf, outlineOf } from './around'

const circle = (many: number, turns = 1): [number, number][] =>
  Array.from({ length: many }, (_, at) => {
    const angle = (at / many) * turns * 2 * Math.PI
    return [0.3 * Math.cos(angle), 0.2 * Math.sin(angle)]
  })

test('a line that comes back is a line around, of not too many points', () => {
  expect(aroundOf(circle(40))).toEqual(circle(40))
  expect(aroundOf(circle(3000)).length).toBeLessThanOrEqual(400)
})

test('a line from corner to corner is a box', () => {
  const line: [number, number][] = [
    [-0.2, -0.4],
    [0, 0.1],
    [0.25, 0.4],
  ]
  expect(aroundOf(line)).toEqual([line[0], line[2]])
  expect(outlineOf(aroundOf(line))).toEqual([
    [-0.2, -0.4],
    [0.25, -0.4],
    [0.25, 0.4],
    [-0.2, 0.4],
  ])
})

test('a tap is nothing', () => {
  expect(aroundOf([])).toEqual([])
  expect(aroundOf([[0.1, 0.1]])).toEqual([])
})
