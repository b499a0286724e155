import { expect, test, vi } from 'vitest'

vi.stubGlobal(
  'window',
  Object.assign(new EventTarget(), { matchMedia: () => ({ matches: false }) }),
)
const { VERBS } = await import('@/controls/verbs')
const { STAGES } = await import('@/stages')
const { commonKeys, keyOfVerb } = await import('./keys')

const nothing = () => {}
const acts = new Proxy({} as Parameters<typeof commonKeys>[0], { get: () => nothing })

test('every stage is found, in the order of the job', () => {
  expect(STAGES.map((stage) => stage.id)).toEqual([
    'gather',
    'cut',
    'grade',
    'layer',
    'move',
    'mix',
    'send',
  ])
})

test('in no stage a key means two things at once', () => {
  for (const stage of STAGES) {
    const verbs = [...VERBS, ...(stage.verbs ?? [])].map((verb) => keyOfVerb(verb, nothing))
    const all = [...commonKeys(acts), ...verbs, ...(stage.keys?.() ?? [])]
    const keys = all.map((one) => one.key)
    expect(keys.filter((key, at) => keys.indexOf(key) !== at)).toEqual([])
    for (const one of all) expect(one.label.length).toBeGreaterThan(3)
  }
})
