import { expect, test, vi } from 'vitest'
import type { Clip, Track } from '@/api/types'
import type { Hands, InHand, Situation, Verb } from './verb'

vi.mock('~icons/tabler/arrow-bar-to-right', () => ({ default: {} }))
const { VERBS } = await import('./index')

const SECOND = 705_600_000

function held(kind: Track['kind'], clip: Partial<Clip> = {}): InHand {
  const whole = { kind: 'video', id: 'a', start: SECOND, length: 2 * SECOND, ...clip } as Clip
  return { clip: whole, track: { id: 't', kind, closes_gaps: kind === 'main' } as Track }
}

function verb(id: string): Required<Pick<Verb, 'step'>> & Verb {
  const found = VERBS.find((one) => one.id === id)
  if (!found || !('step' in found)) throw new Error(`no verb ${id}`)
  return found as Required<Pick<Verb, 'step'>> & Verb
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

test('what is at the playhead is found again where its track closes gaps', () => {
  const moves = (hand: InHand) => verb('away-left').moves?.({ hand: [hand], at: 2 * SECOND })
  expect(moves(held('main'))).toBe(SECOND)
  expect(moves(held('picture'))).toBeNull()
})

test('with nothing in hand verbs are for the project', () => {
  const nothing: Situation = { hand: [], at: SECOND }
  const shown = VERBS.filter((one) => one.shown(nothing)).map((one) => one.id)
  expect(shown).toEqual(['split', 'loop', 'everything', 'cameras', 'mark', 'keep-frame'])
  expect(verb('split').step(nothing)).toEqual({ kind: 'split', clips: [], at: SECOND })
  expect(verb('mark').step(nothing)).toMatchObject({ clip: null, at: SECOND })
})

test('a marker goes to the clip in hand when the playhead is on it', () => {
  expect(verb('mark').step(main(2 * SECOND))).toMatchObject({ clip: 'a' })
  expect(verb('mark').step(main(4 * SECOND))).toMatchObject({ clip: null })
})

test('everything from here leaves out what has ended, and locked tracks', () => {
  const clips = [0, 1, 2].map((n) => ({ id: `c${n}`, start: n * SECOND, length: SECOND }))
  const tracks = [{ clips }, { clips: [{ id: 'x', start: 0, length: 9 * SECOND }], locked: true }]
  const taken: string[][] = []
  const hands = { takeAll: (all: string[]) => taken.push(all) } as unknown as Hands
  const now = { hand: [], at: SECOND, tracks } as unknown as Situation
  VERBS.find((one) => one.id === 'everything')?.act?.(now, hands)
  expect(taken).toEqual([['c1', 'c2']])
})

test('nudging is for free tracks, by frames of the project', () => {
  const free: Situation = { hand: [held('picture')], at: 0, frame: 10 }
  expect(verb('nudge-10').step(free)).toMatchObject({ by: -100 })
  expect(verb('nudge1').shown(main(0))).toBe(false)
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
