import 'fake-indexeddb/auto'
import { expect, test } from 'vitest'
import type { Waiting } from './line'
import { outbox } from './outbox'

const step = (project: string, seed: string, made: number): Waiting => ({
  project,
  seed,
  made,
  ask: { kind: 'edit', edit: { kind: 'split', at: made, seed } as never },
  from: null,
  tries: 0,
})

test('steps of a project come back in the order in which they were made', async () => {
  await outbox.keep(step('p', 'late', 30))
  await outbox.keep(step('p', 'early', 10))
  await outbox.keep(step('other', 'theirs', 20))
  const seeds = async (project?: string) => (await outbox.load(project)).map((one) => one.seed)
  expect(await seeds('p')).toEqual(['early', 'late'])
  expect(await seeds()).toEqual(['early', 'theirs', 'late'])
  await outbox.keep({ ...step('p', 'early', 10), tries: 4 })
  expect((await outbox.load('p')).map((one) => one.tries)).toEqual([4, 0])
  await outbox.drop(step('p', 'early', 10))
  expect(await seeds('p')).toEqual(['late'])
})
