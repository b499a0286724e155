import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, test, vi } from 'vitest'

const { POST, GET } = vi.hoisted(() => ({ POST: vi.fn(), GET: vi.fn() }))

vi.mock('@/api/client', async (original) => ({
  ...(await original<typeof import('@/api/client')>()),
  client: { POST, GET },
  need: (asked: unknown) => asked,
}))
vi.stubGlobal('window', Object.assign(new EventTarget(), { setTimeout: () => 0 }))

const { useProject } = await import('./project')
const { useNotes } = await import('./notes')
const { ServerError } = await import('@/api/client')

const problem = (message: string, more = {}) => ({ message, safe: '', todo: '', code: '', ...more })
const stale = (found: unknown) => new ServerError(problem('changed elsewhere'), 409, found)
const position = (revision: number) => ({
  revision,
  step: revision,
  label: `step ${revision}`,
  can_undo: true,
  can_redo: false,
})
const done = (revision: number, patch: unknown[], start = revision - 1) => ({
  ...position(revision),
  start,
  patch,
})

function state(revision: number, names: string[]) {
  const clips = names.map((name, n) => ({
    kind: 'solid',
    id: name,
    name,
    start: n * 10,
    length: 10,
  }))
  const document = {
    rate: { num: 30, den: 1 },
    canvas: {},
    tracks: [{ id: 't', kind: 'main', clips }],
  }
  return { id: 'p', name: 'Kites', document, ...position(revision) }
}

const rename = (to: string) => [{ op: 'replace', path: '/tracks/0/clips/0/name', value: to }]

beforeEach(async () => {
  setActivePinia(createPinia())
  POST.mockReset()
  GET.mockReset()
  GET.mockResolvedValueOnce(state(1, ['a']))
  await useProject().open('p')
})

function basedOn(call: number): unknown {
  const [, asked] = POST.mock.calls[call] as [string, { body: { based_on: number } }]
  return asked.body.based_on
}

test('a step becomes the newest document', async () => {
  const project = useProject()
  const before = project.document
  POST.mockResolvedValueOnce(done(2, rename('b')))
  expect(await project.edit({ kind: 'split', at: 0 })).toBe(true)
  expect(project.tracks[0]?.clips[0]?.name).toBe('b')
  expect([project.revision, project.step]).toEqual([2, 2])
  expect(before?.tracks[0]?.clips[0]?.name).toBe('a')
})

test('steps wait for each other, each based on the one before', async () => {
  const project = useProject()
  POST.mockResolvedValueOnce(done(2, []))
  POST.mockResolvedValueOnce(done(3, []))
  await Promise.all([
    project.edit({ kind: 'split', at: 0 }),
    project.edit({ kind: 'split', at: 1 }),
  ])
  expect([basedOn(0), basedOn(1)]).toEqual([1, 2])
  expect(project.waiting).toBe(0)
})

test('a stale step is done again on the newest version, and that is said', async () => {
  const project = useProject()
  POST.mockRejectedValueOnce(stale(state(5, ['x', 'y'])))
  POST.mockResolvedValueOnce(done(6, rename('z')))
  expect(await project.edit({ kind: 'split', at: 0 })).toBe(true)
  expect([basedOn(0), basedOn(1)]).toEqual([1, 5])
  expect(project.tracks[0]?.clips.map((clip) => clip.name)).toEqual(['z', 'y'])
  expect(useNotes().notes.map((note) => note.kind)).toEqual(['told'])
})

test('the same step is sent again, with the same ids to come', async () => {
  const project = useProject()
  POST.mockRejectedValueOnce(stale(state(5, ['x'])))
  POST.mockResolvedValueOnce(done(6, []))
  await project.edit({ kind: 'split', at: 0 })
  const seeds = POST.mock.calls.map((call) => {
    const [, asked] = call as [string, { body: { edit: { seed: string } } }]
    return asked.body.edit.seed
  })
  expect(seeds[0]).toBe(seeds[1])
})

test('a refused step changes nothing, and later ones go on', async () => {
  const project = useProject()
  const refusal = problem('There is nothing to split.', { safe: 'Unchanged.', todo: 'Move on.' })
  POST.mockRejectedValueOnce(new ServerError(refusal, 422))
  POST.mockResolvedValueOnce(done(2, []))
  expect(await project.edit({ kind: 'split', at: 0 })).toBe(false)
  expect(await project.edit({ kind: 'split', at: 1 })).toBe(true)
  expect(project.refusals).toBe(1)
  expect(useNotes().notes[0]).toMatchObject({ kind: 'problem', detail: 'Unchanged. Move on.' })
})

test('within a group its own tracks are shown, and steps say where they are meant', async () => {
  const project = useProject()
  const inner = [{ id: 'g1', kind: 'main', clips: [{ kind: 'solid', id: 's', length: 30 }] }]
  const group = { kind: 'group', id: 'g', length: 30, tracks: inner }
  const place = [{ op: 'add', path: '/tracks/0/clips/0', value: group }]
  POST.mockResolvedValueOnce(done(2, place))
  await project.edit({ kind: 'split', at: 0 })
  project.enter('g')
  expect(project.tracks[0]?.id).toBe('g1')
  expect(project.look).toEqual({ within: 'g' })
  expect(project.whole({ kind: 'split', at: 0 })).toMatchObject({ within: 'g' })
  POST.mockResolvedValueOnce(done(3, [{ op: 'remove', path: '/tracks/0/clips/0' }]))
  await project.edit({ kind: 'split', at: 0 })
  await Promise.resolve()
  expect(project.within).toBe('')
})

test('pictures stay those of before while only markers change', async () => {
  const project = useProject()
  const mark = [{ op: 'add', path: '/markers', value: [] }]
  POST.mockResolvedValueOnce(done(2, mark))
  await project.edit({ kind: 'add_marker', at: 0 })
  expect([project.revision, project.seen]).toEqual([2, 1])
  const shorter = [{ op: 'replace', path: '/tracks/0/clips/0/length', value: 5 }]
  POST.mockResolvedValueOnce(done(3, shorter))
  await project.edit({ kind: 'split', at: 0 })
  expect(project.seen).toBe(3)
})

test('a refusal can be taken on by whoever asked', async () => {
  const project = useProject()
  POST.mockRejectedValueOnce(new ServerError(problem('too little'), 422))
  const told: string[] = []
  const done = await project.edit({ kind: 'split', at: 0 }, ({ message }) => told.push(message) > 0)
  expect([done, told]).toEqual([false, ['too little']])
  expect(useNotes().notes).toHaveLength(0)
})

test('an answer that comes after another project was opened changes nothing there', async () => {
  const project = useProject()
  let answer: (found: unknown) => void = () => {}
  POST.mockReturnValueOnce(new Promise((done) => (answer = done)))
  const sent = project.edit({ kind: 'split', at: 0 })
  GET.mockResolvedValueOnce({ ...state(30, ['other']), id: 'q' })
  await project.open('q')
  answer(done(2, rename('b')))
  expect(await sent).toBe(true)
  expect([project.id, project.revision]).toEqual(['q', 30])
  expect(project.tracks[0]?.clips[0]?.name).toBe('other')
})

test('of two projects opened in a row the last one is shown, whichever comes first', async () => {
  const project = useProject()
  let slow: (found: unknown) => void = () => {}
  GET.mockReturnValueOnce(new Promise((done) => (slow = done)))
  const first = project.open('p')
  GET.mockResolvedValueOnce({ ...state(30, ['other']), id: 'q' })
  await project.open('q')
  slow(state(1, ['a']))
  await first
  expect(project.id).toBe('q')
})
