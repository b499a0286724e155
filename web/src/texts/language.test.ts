import { expect, test } from 'vitest'
import { t } from './index'
import { chosen, formOf } from './language'

test('the first language that a person reads and the page speaks is spoken; else English', () => {
  expect(chosen(['pt-BR', 'de-AT', 'en'], ['en', 'de'])).toBe('de')
  expect(chosen(['pt-BR'], ['en', 'de'])).toBe('en')
  expect(chosen([], ['en', 'de'])).toBe('en')
})

test.each([
  ['en', [0, 1, 2, 5], [1, 0, 1, 1]],
  // one, few, many, other: 1, 2 to 4, 5 to 21, parts
  ['pl', [1, 2, 5, 22, 1.5], [0, 1, 2, 1, 3]],
  // zero, one, two, few, many, other
  ['ar', [0, 1, 2, 3, 11, 100], [0, 1, 2, 3, 4, 5]],
  ['ja', [0, 1, 7], [0, 0, 0]],
])('counts in %s take the forms of its plural rules', (language, counts, forms) => {
  expect(counts.map((count) => formOf(language, count, 6))).toEqual(forms)
})

test('a language with more forms than a text has takes its last one', () => {
  expect(formOf('ar', 100, 2)).toBe(1)
})

test('texts with a count say one thing, none and several rightly', () => {
  const steps = (count: number) => t('steps.saving.steps', count)
  expect([0, 1, 2].map(steps)).toEqual(['0 steps', '1 step', '2 steps'])
})
