import { expect, test } from 'vitest'
import { i18n, t } from './index'

const sources = import.meta.glob<string>(['../**/*.{ts,vue}', '!../**/*.test.ts'], {
  query: '?raw',
  import: 'default',
  eager: true,
})

function leaves(texts: object, path = ''): [string, unknown][] {
  return Object.entries(texts).flatMap(([key, text]: [string, unknown]) =>
    typeof text === 'object' && text ? leaves(text, `${path}${key}.`) : [[path + key, text]],
  )
}

const keys = leaves(i18n.global.getLocaleMessage('en')).map(([key]) => key)

test('every text can be read, and none is empty', () => {
  expect(keys.length).toBeGreaterThan(1000)
  for (const key of keys) expect(t(key, {}, 2).trim(), key).not.toBe('')
})

test('every text is asked for by its key somewhere', () => {
  const asked = new Set(
    Object.values(sources).flatMap((source) => source.match(/(?<=['"`])[a-z]\w*(\.\w+)+/g) ?? []),
  )
  // What the server may tell is found by its words, not by keys.
  const unused = keys.filter((key) => !key.startsWith('told.') && !asked.has(key))
  expect(unused).toEqual([])
})
