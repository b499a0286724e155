import type { Schemas } from '@/api/client'
import { t } from '@/texts'
import { wholeClock } from '@/time'

export type Job = Schemas['JobOut']

const UNFINISHED = ['waiting', 'working', 'holding']

export const isUnfinished = (job: Job) => UNFINISHED.includes(job.state)

const DOING: Record<string, string> = {
  look: t('jobs.job.lookingAtTheFile'),
  known: t('jobs.job.lookingAtTheFile'),
  sound: t('jobs.job.readingItsSound'),
  proxy: t('jobs.job.makingACopyForPreviews'),
  planning: t('jobs.job.cuttingItIntoPieces'),
  joining: t('jobs.job.puttingItTogether'),
}

/** Where a job is, in a few words. */
export function jobText(job: Job): string {
  if (job.state === 'failed') return job.problem?.message ?? t('jobs.job.failed')
  if (job.state === 'cancelled') return t('jobs.job.cancelled')
  if (job.state === 'done') return t('jobs.job.done')
  if (job.state === 'waiting' && !job.share) return t('jobs.job.waitsForItsTurn')
  const left =
    job.left === null ? '' : t('jobs.job.left', { time: wholeClock(Math.ceil(job.left)) })
  return [DOING[job.doing] ?? `${Math.floor(job.share * 100)} %`, left].filter(Boolean).join(' · ')
}
