import { expect, test } from 'vitest'
import { changesPicture } from './visible'

const paths = (...all: string[]) => all.map((path) => ({ path }))

test('markers, names and colours leave the picture alone', () => {
  const unseen = paths(
    '/markers/0',
    '/tracks/1/clips/3/markers/0/name',
    '/tracks/0/clips/12/name',
    '/tracks/0/clips/0/tag',
    '/tracks/2/name',
  )
  expect(changesPicture(unseen)).toBe(false)
})

test('anything else counts', () => {
  for (const path of [
    '/tracks/0/clips/0/start',
    '/tracks/0/hidden',
    '/tracks/0/clips/0',
    '/rate',
  ]) {
    expect(changesPicture([...paths('/markers/0'), { path }])).toBe(true)
  }
})
