import { createI18n } from 'vue-i18n'
import { chosen, formOf } from './language'
import { teller, toldIn } from './told'

type Texts = Record<string, Record<string, unknown>>

/** A folder for each language, in it a file for each room of the page: another folder is another language. */
const files = import.meta.glob<Texts>('./*/*.json', { eager: true, import: 'default' })

const messages: Record<string, Texts> = {}
for (const [path, texts] of Object.entries(files)) {
  const language = path.split('/')[1] ?? ''
  messages[language] = { ...messages[language], ...texts }
}

const wanted = typeof navigator === 'undefined' ? [] : navigator.languages
/** The first language that the person reads and the page speaks. */
export const language = chosen(wanted, Object.keys(messages))

export const i18n = createI18n({
  legacy: false,
  locale: language,
  fallbackLocale: 'en',
  messages,
  pluralRules: { [language]: (count, forms) => formOf(language, count, forms) },
})

/** A text by its key, for what is no template (there it is `$t`). */
export const t = i18n.global.t

const told = (of: string) => (messages[of]?.told ?? {}) as Record<string, string>
/** A text of the server in the person's language; null where that is the server's own. */
const tell = language === 'en' ? null : teller(told('en'), told(language))

/** An answer of the server with its words in the person's language (see `toldIn`). */
export function inLanguage<T>(answer: T, words?: string[]): T {
  return tell ? toldIn(answer, tell, words) : answer
}

/** A name of the core, such as `clear_below`, as words. */
export function asWords(name: string): string {
  const words = name.replaceAll('_', ' ')
  return tell?.(words) ?? words
}
