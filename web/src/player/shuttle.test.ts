import { expect, test } from 'vitest'
import { nextPace, shuttled } from './shuttle'

const source = { base: '/x', frames: 100, rate: { num: 30, den: 1 }, query: { within: 'g' } }

test('pressing again goes faster, the other key turns round', () => {
  expect(nextPace(1, false, 1)).toBe(1)
  expect(nextPace(1, true, 1)).toBe(2)
  expect(nextPace(8, true, 1)).toBe(8)
  expect(nextPace(4, true, -1)).toBe(-1)
  expect(nextPace(-2, true, -1)).toBe(-4)
})

test('frames at a speed are those of the film', () => {
  const back = shuttled(source, -2, 40)
  expect(back.source.query).toEqual({ within: 'g', speed: '-2' })
  expect(back.source.frames).toBe(50)
  expect(back.shown(back.start)).toBe(41)
  expect(back.shown(49)).toBe(1)
  const fast = shuttled(source, 4, 40)
  expect(fast.shown(fast.start)).toBe(40)
  expect(shuttled(source, 1, 7).source).toBe(source)
})
