import { expect, test } from 'vitest'
import { elementStep, FRESH, placeStep } from './adding'

test('every fresh layer lies above at the playhead, with a name and a length', () => {
  for (const one of FRESH) {
    const step = placeStep(one.clip, 7) as {
      clip: Record<string, unknown>
      at: number
      mode: string
    }
    expect(step).toMatchObject({ at: 7, mode: 'above' })
    expect(step.clip.length).toBeGreaterThan(0)
    expect(step.clip.name).toBeTruthy()
  }
})

test('on a smaller canvas what is drawn is made smaller', () => {
  const small = { width: 540, height: 960 }
  const sized = (kind: string) =>
    (placeStep({ kind }, 0, small) as { clip: { place?: { size: number[] } } }).clip.place?.size
  expect(sized('text')).toEqual([0.5, 0.5])
  expect(sized('adjustment')).toBeUndefined()
})

test('an element is fitted to another canvas about its middle', () => {
  const place = { position: [100, 50], size: [1, 2], fit: 'whole' }
  const copies = [
    { clip: { kind: 'text', place } },
    { clip: { kind: 'still', place } },
    { clip: { kind: 'still', place: { ...place, fit: 'own', position: { keys: [] } } } },
  ]
  const step = elementStep({ copies, width: 1080, height: 1920 }, 0, { width: 540, height: 960 })
  const places = (step as { copies: { clip: { place: object } }[] }).copies.map((c) => c.clip.place)
  expect(places[0]).toMatchObject({ position: [50, 25], size: [0.5, 1] })
  expect(places[1]).toMatchObject({ position: [50, 25], size: [1, 2] })
  expect(places[2]).toMatchObject({ position: { keys: [] }, size: [0.5, 1] })
})
