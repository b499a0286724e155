const FALLBACK = 'en'
/** In the order in which the forms of a text stand beside each other. */
const FORMS = ['zero', 'one', 'two', 'few', 'many', 'other'] as const

/** The first of the wanted languages that is spoken: “de-AT” is content with “de”. */
export function chosen(wanted: readonly string[], spoken: string[]): string {
  const short = wanted.map((one) => one.split('-')[0] ?? '')
  return short.find((one) => spoken.includes(one)) ?? FALLBACK
}

/** Which of the forms of a text a count takes, by the plural rules of the language (CLDR, by Intl). */
export function formOf(language: string, count: number, forms: number): number {
  const rules = new Intl.PluralRules(language)
  const known = FORMS.filter((form) => rules.resolvedOptions().pluralCategories.includes(form))
  return Math.min(known.indexOf(rules.select(count)), forms - 1)
}
