import type { Post } from '@/stores/posts'
import { isUnfinished } from '@/jobs/job'
import { t } from '@/texts'
import { dateLabel } from '@/texts/dates'
import { wholeClock } from '@/time'

/** Words that are divided by spaces or commas, without the signs before them. */
export const tagsOf = (text: string) =>
  text
    .split(/[\s,]+/)
    .map((word) => word.replace(/^#+/, ''))
    .filter(Boolean)

/** A moment as a field for a date and a time shows it, in the time of the place. */
export function asLocal(moment: Date): string {
  const here = new Date(moment.getTime() - moment.getTimezoneOffset() * 60_000)
  return here.toISOString().slice(0, 16)
}

const DOING: Record<string, string> = {
  making: t('send.posting.waitsForTheFilm'),
  'looked-at': t('send.posting.beingLookedAt'),
  'taking-down': t('send.posting.beingTakenDown'),
}

/** Where a post is, in a few words. */
export function postText(post: Post, now = Date.now()): string {
  const { job, there } = post
  if (!isUnfinished(job)) return ended(post)
  if (!post.wanted) return DOING['taking-down']!
  if (post.trouble) {
    const left = job.due_at ? (Date.parse(job.due_at) - now) / 1000 : 0
    const again =
      left > 1
        ? t('send.posting.againIn', { time: wholeClock(Math.ceil(left)) })
        : t('send.posting.againNow')
    return `${post.trouble} ${again}`
  }
  if (there === 'waiting') return t('send.posting.shownOn', { at: dateLabel(post.shown_at ?? '') })
  if (job.doing && DOING[job.doing]) return DOING[job.doing]!
  if (job.state === 'waiting') return t('send.posting.waits')
  return t('send.posting.sending', { share: Math.floor(job.share * 100) })
}

function ended({ job, there, seen, liked }: Post): string {
  if (there === 'gone') return t('send.posting.gone')
  if (there === 'refused') return t('send.posting.refused')
  if (there === 'live') return t('send.posting.seen', { seen, liked })
  if (job.state === 'failed') return job.problem?.message ?? t('send.posting.refused')
  return t('send.posting.notPosted')
}
