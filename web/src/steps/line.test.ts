import { expect, test } from 'vitest'
import { ServerError } from '@/api/client'
import { makeLine, type Ask, type Done, type LineWorld, type State, type Waiting } from './line'

const problem = { code: 'x', message: 'no', safe: '', todo: '' }
const split = (at: number): Ask => ({ kind: 'edit', edit: { kind: 'split', at } as never })
const done = (start: number, revision: number) =>
  ({ start, revision, patch: [], made: [`of ${revision}`] }) as unknown as Done
const state = (revision: number) => ({ revision, document: {} }) as unknown as State
const away = () => new ServerError(problem, 0)

type Answer = Done | State | Error

/** A server that answers as it is told, and all that the line said to the world. */
function world(...answers: Answer[]) {
  const asked: [Ask, number][] = []
  const said: string[] = []
  const kept = new Map<string, Waiting>()
  const made: LineWorld = {
    outbox: {
      keep: async (step) => void kept.set(step.seed, structuredClone(step)),
      drop: async (step) => void kept.delete(step.seed),
      load: async () => [...kept.values()],
    },
    async post(_project, ask, basedOn) {
      asked.push([ask, basedOn])
      const answer = answers.shift()
      if (!answer || answer instanceof Error) throw answer ?? new Error('asked too often')
      return answer
    },
    fetch: async () => state(99),
    pause: async (tries) => void said.push(`pause ${tries}`),
    patched: (_project, { revision }) => void said.push(`patched ${revision}`),
    replaced: (_project, { revision }, elsewhere) =>
      void said.push(`replaced ${revision}${elsewhere ? ' elsewhere' : ''}`),
    refused: (step) => void said.push(`refused ${step.seed}`),
  }
  return { made, asked, said, kept }
}

test('steps go one after another, each based on the one before', async () => {
  const { made, asked, said, kept } = world(done(1, 2), done(2, 3))
  const line = makeLine('p', 1, made)
  const both = [line.push(split(0), 'a'), line.push(split(1), 'b')]
  expect(line.waiting.value).toHaveLength(2)
  expect(await Promise.all(both)).toEqual([
    { good: true, made: ['of 2'] },
    { good: true, made: ['of 3'] },
  ])
  expect(asked.map(([, based]) => based)).toEqual([1, 2])
  expect([said, kept.size]).toEqual([['patched 2', 'patched 3'], 0])
})

test('when nobody answers a step is sent again, with growing pauses, until it is done', async () => {
  const { made, asked, said, kept } = world(away(), new ServerError(problem, 503), done(1, 2))
  const line = makeLine('p', 1, made)
  const answer = line.push(split(0), 'a')
  expect(kept.has('a')).toBe(true)
  expect((await answer).good).toBe(true)
  expect(said).toEqual(['pause 1', 'pause 2', 'patched 2'])
  expect(new Set(asked.map(([ask]) => ask)).size).toBe(1)
  expect([line.trouble.value, kept.size]).toEqual(['', 0])
})

test('a step whose answer was lost is not applied twice', async () => {
  // The first was done and its answer lost; the page was reloaded since and knows revision 2.
  const { made, said } = world(done(1, 2))
  const line = makeLine('p', 2, made)
  line.resume([{ project: 'p', seed: 'a', made: 1, ask: split(0), from: 1, tries: 1 }])
  await drained(line)
  expect(said).toEqual([])
})

test('an old step that others have gone on from leads to the newest state', async () => {
  const { made, said } = world(done(1, 2), done(99, 100))
  const line = makeLine('p', 50, made)
  line.resume([{ project: 'p', seed: 'a', made: 1, ask: split(0), from: 1, tries: 1 }])
  await drained(line)
  expect(said).toEqual(['replaced 99'])
  expect((await line.push(split(3), 'b')).good).toBe(true)
  expect(said).toEqual(['replaced 99', 'patched 100'])
})

test('a stale step is done again on the state that came', async () => {
  const stale = new ServerError(problem, 409, state(5))
  const { made, asked, said } = world(stale, done(5, 6))
  const line = makeLine('p', 1, made)
  expect((await line.push(split(0), 'a')).good).toBe(true)
  expect(asked.map(([, based]) => based)).toEqual([1, 5])
  expect(said).toEqual(['replaced 5 elsewhere', 'patched 6'])
})

test('a step that is always stale is given up and told', async () => {
  const stale = () => new ServerError(problem, 409, state(5))
  const { made, said } = world(stale(), stale(), stale(), stale(), done(5, 6))
  const line = makeLine('p', 1, made)
  expect((await line.push(split(0), 'a')).good).toBe(false)
  expect(said.at(-1)).toBe('refused a')
  expect((await line.push(split(1), 'b')).good).toBe(true)
})

test('an undo whose answer was lost is not done twice', async () => {
  const stale = new ServerError(problem, 409, state(4))
  const { made, asked, said } = world(away(), stale)
  const line = makeLine('p', 5, made)
  expect((await line.push({ kind: 'undo' }, 'u')).good).toBe(true)
  expect(asked.map(([, based]) => based)).toEqual([5, 5])
  expect(said).toEqual(['pause 1', 'replaced 4'])
})

test('an undo of what others did meanwhile is not done at all', async () => {
  const { made, said } = world(new ServerError(problem, 409, state(9)))
  const line = makeLine('p', 5, made)
  expect((await line.push({ kind: 'undo' }, 'u')).good).toBe(false)
  expect(said).toEqual(['replaced 9 elsewhere'])
})

test('the revision an undo began at outlives a reload', async () => {
  const { made, kept, asked } = world(away(), new ServerError(problem, 409, state(4)))
  const first = makeLine('p', 5, { ...made, pause: () => new Promise(() => {}) })
  first.push({ kind: 'undo' }, 'u')
  await until(() => kept.get('u')?.from === 5 && first.trouble.value === 'away')
  const second = makeLine('p', 4, made)
  second.resume([...kept.values()])
  await drained(second)
  expect(asked.map(([, based]) => based)).toEqual([5, 5])
})

test('a refused step is told, and later ones go on', async () => {
  const { made, said } = world(new ServerError(problem, 422), done(1, 2))
  const line = makeLine('p', 1, made)
  const answers = [line.push(split(0), 'a'), line.push(split(1), 'b')]
  expect((await Promise.all(answers)).map(({ good }) => good)).toEqual([false, true])
  expect(said).toEqual(['refused a', 'patched 2'])
})

test('signed out, steps stay; they are sent after signing in', async () => {
  const { made, kept, said } = world(new ServerError(problem, 401), done(1, 2))
  const line = makeLine('p', 1, made)
  const answer = line.push(split(0), 'a')
  await until(() => line.trouble.value === 'signed-out')
  expect([kept.size, line.waiting.value.length]).toEqual([1, 1])
  line.again()
  expect([(await answer).good, said]).toEqual([true, ['patched 2']])
})

test('only a step that was never sent can be taken back', async () => {
  const { made } = world(done(1, 2))
  const line = makeLine('p', 1, made)
  const first = line.push(split(0), 'a')
  expect(line.takeBack()).toBe(false)
  const second = line.push(split(1), 'b')
  expect(line.takeBack()).toBe(true)
  expect((await Promise.all([first, second])).map(({ good }) => good)).toEqual([true, false])
})

async function until(condition: () => boolean) {
  for (let turn = 0; turn < 50 && !condition(); turn++) await Promise.resolve()
  expect(condition()).toBe(true)
}

const drained = (line: { waiting: { value: unknown[] } }) =>
  until(() => line.waiting.value.length === 0)
