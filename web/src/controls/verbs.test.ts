import { expect, test, vi } from 'vitest'
import type { Clip, Track } from '@/api/types'
import type { InHand, Situation } from './verbs'

vi.mock('~icons/tabler/arrow-bar-to-right', () => ({ default: {} }))
const { VERBS } = await import('./verbs')

const SECOND = 705_600_000

function held(kind: Track['kind'], clip: Partial<Clip> = {}): InHand {
  const whole = { kind: 'video', id: 'a', start: SECOND, length: 2 * SECOND, ...clip } as Clip
  return { clip: whole, track: { id: 't', kind, closes_gaps: kind === 'main' } as Track }
}

function verb(id: string) {
  const found = VERBS.find((one) => one.id === id)
  if (!found) throw new Error(`no verb ${id}`)
  return found
}

const main = (at: number): Situation => ({ hand: [held('main')], at })

test('no two verbs share a key, and each says what will happen', () => {
  expect(new Set(VERBS.map((one) => one.key)).size).toBe(VERBS.length)
  for (const one of VERBS) expect(one.help.length).toBeGreaterThan(10)
})

test('cutting needs the playhead inside the clip', () => {
  for (const id of ['away-left', 'away-right', 'split']) {
    expect(verb(id).ready(main(SECOND))).toBe(false)
    expect(verb(id).ready(main(2 * SECOND))).toBe(true)
    expect(verb(id).ready(main(3 * SECOND))).toBe(false)
  }
})

test('with nothing in hand only split is offered, on all tracks', () => {
  const nothing: Situation = { hand: [], at: SECOND }
  expect(VERBS.filter((one) => one.shown(nothing)).map((one) => one.id)).toEqual(['split'])
  expect(verb('split').step(nothing)).toEqual({ kind: 'split', clips: [], at: SECOND })
})

test('raise is for the main track, lower for tracks above', () => {
  const above: Situation = { hand: [held('picture')], at: 0 }
  expect([verb('raise').shown(main(0)), verb('lower').shown(main(0))]).toEqual([true, false])
  expect([verb('raise').shown(above), verb('lower').shown(above)]).toEqual([false, true])
})

test('closing the gap is offered only where it does not happen by itself', () => {
  expect(verb('delete-close').shown(main(0))).toBe(false)
  const free: Situation = { hand: [held('sound', { kind: 'sound' })], at: 0 }
  expect(verb('delete-close').shown(free)).toBe(true)
  expect(verb('delete-close').step(free)).toEqual({ kind: 'remove', clips: ['a'], close: true })
})

test('mute and fill turn back what they did', () => {
  const muted: Situation = { hand: [held('main', { muted: true })], at: 0 }
  expect(verb('mute').step(muted)).toMatchObject({ values: { muted: false } })
  const place = { fit: 'fill' }
  const filled: Situation = { hand: [held('main', { place } as Partial<Clip>)], at: 0 }
  expect(verb('fill').step(filled)).toMatchObject({ values: { 'place/fit': 'whole' } })
})
