import { beforeEach, expect, test, vi } from 'vitest'
import { nextTick } from 'vue'
import type { VideoClip } from '@/api/types'
import type { Tracked } from '@/stores/tracking'
import { useFollowing } from './useFollowing'

const wanted = { change: 'turns', views: [{ at: 20, corners: [] }], first: 0, last: 100 }
/** What was asked for, and how to answer. */
const asked: { wanted: Tracked; answer: (found: object | null) => void }[] = []
const kept: Tracked[] = []
const store = {
  taken: '',
  draft: { of: '', change: 'turns', at: 20, quad: [] } as object | null,
  ask: (_: string, one: Tracked) =>
    new Promise((answer) => asked.push({ wanted: one, answer: answer })),
  cancel: () => asked.at(-1)?.answer(null),
  jobOf: (_: string, one: Tracked) => (one ? { share: 0.4 } : null),
}

vi.mock('@/stores/project', () => ({ useProject: () => ({ rate: { num: 30, den: 1 } }) }))
vi.mock('@/stores/tracking', () => ({ useTracking: () => store, wantedOf: (one: Tracked) => one }))
vi.mock('@/picture/useTracked', () => ({
  useTracked: () => ({
    trackers: { value: [] },
    tick: { value: 0 },
    through: () => wanted,
    foundOf: () => null,
    momentOf: () => null,
    keep: (one: Tracked) => (kept.push(one), Promise.resolve('t')),
  }),
}))

const begun = () => useFollowing(() => ({ id: 'c', media: 'm' }) as VideoClip)
beforeEach(() => {
  asked.length = kept.length = 0
  store.draft = { of: '', change: 'turns', at: 20, quad: [] }
})

test('stopped on the way it is kept as far as it had come', async () => {
  const following = begun()
  const done = following.follow()
  expect(following.stoppable.value).toBe(true)
  following.keepThisFar()
  await vi.waitFor(() => expect(asked.length).toBe(2))
  expect(asked[1]?.wanted).toMatchObject({ first: 0, last: 40 })
  asked[1]?.answer({})
  await done
  expect(kept).toMatchObject([{ last: 40 }])
  expect(store).toMatchObject({ taken: 't', draft: null })
})

test('it is followed one way only where that is wanted', () => {
  const following = begun()
  for (const way of ['on', 'back'] as const) {
    following.way.value = way
    void following.follow()
  }
  expect(asked.map((one) => [one.wanted.first, one.wanted.last])).toEqual([
    [20, 100],
    [0, 20],
  ])
})

test('cancelled, nothing is kept and what was laid stays', async () => {
  const following = begun()
  const done = following.follow()
  following.cancel()
  await done
  await nextTick()
  expect(asked.length).toBe(1)
  expect(kept).toEqual([])
  expect(store.draft).not.toBe(null)
})

test('spots tell place, turn and size; four of them may be corners', () => {
  const following = begun()
  following.beginSpots()
  const spots: [number, number][] = [
    [-0.1, -0.1],
    [0.1, -0.1],
    [0.1, 0.2],
    [-0.1, 0.1],
  ]
  following.laySpots(spots.slice(0, 3), 'leans')
  expect(store.draft).toMatchObject({ change: 'turns', spots: spots.slice(0, 3) })
  following.laySpots(spots, 'leans')
  expect(store.draft).toMatchObject({ change: 'leans', quad: spots })
  following.laySpots(spots.slice(0, 2))
  expect(store.draft).toMatchObject({ change: 'turns' })
})
