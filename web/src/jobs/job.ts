import type { Schemas } from '@/api/client'
import { wholeClock } from '@/time'

export type Job = Schemas['JobOut']

const UNFINISHED = ['waiting', 'working', 'holding']

export const isUnfinished = (job: Job) => UNFINISHED.includes(job.state)

const DOING: Record<string, string> = {
  look: 'looking at the file',
  known: 'looking at the file',
  sound: 'reading its sound',
  proxy: 'making a copy for previews',
  planning: 'cutting it into pieces',
  joining: 'putting it together',
}

/** Where a job is, in a few words. */
export function jobText(job: Job): string {
  if (job.state === 'failed') return job.problem?.message ?? 'failed'
  if (job.state === 'cancelled') return 'cancelled'
  if (job.state === 'done') return 'done'
  if (job.state === 'waiting' && !job.share) return 'waits for its turn'
  const left = job.left === null ? '' : `${wholeClock(Math.ceil(job.left))} left`
  return [DOING[job.doing] ?? `${Math.floor(job.share * 100)} %`, left].filter(Boolean).join(' · ')
}
