import { language } from './index'

const date = new Intl.DateTimeFormat(language, { dateStyle: 'medium', timeStyle: 'short' })
const time = new Intl.DateTimeFormat(language, { timeStyle: 'short' })

/** A day and the time on it, as the language writes them; `moment` in ISO 8601. */
export const dateLabel = (moment: string) => date.format(new Date(moment))

/** The time of a day, as the language writes it; `moment` in ISO 8601. */
export const timeLabel = (moment: string) => time.format(new Date(moment))
