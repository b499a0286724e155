import { expect, test } from 'vitest'
import { isUnfinished, jobText, type Job } from './job'

const job = (more: Partial<Job>): Job => ({
  id: 'j',
  kind: 'film',
  subject: 's',
  state: 'working',
  paused: false,
  due_at: null,
  priority: 0,
  doing: '',
  share: 0,
  left: null,
  problem: null,
  made_at: '',
  started_at: null,
  finished_at: null,
  remarks: [],
  ...more,
})

test.each<[Partial<Job>, string, boolean]>([
  [{ state: 'waiting' }, 'waits for its turn', true],
  [{ state: 'working', share: 0.428, left: 61.2 }, '42 % · 1:02 left', true],
  [{ state: 'holding', share: 0.5 }, '50 %', true],
  [{ doing: 'joining', share: 0.9 }, 'putting it together', true],
  [{ state: 'done', share: 1 }, 'done', false],
  [{ state: 'cancelled' }, 'cancelled', false],
  [{ state: 'failed', problem: { code: '', message: 'No.', safe: '', todo: '' } }, 'No.', false],
])('a job says where it is: %o', (more, text, unfinished) => {
  expect([jobText(job(more)), isUnfinished(job(more))]).toEqual([text, unfinished])
})
